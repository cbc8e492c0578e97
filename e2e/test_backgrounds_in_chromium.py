"""Pictures as backgrounds, asked of Chromium: they show what the picture would, one file is fetched
per screen, the predicted one, and none for what is not shown (CSS Images 4 §4; CSS Backgrounds 3
§3)."""

from __future__ import annotations

import io
import itertools

import numpy as np
import pytest
from conftest import Shelf
from delivered import PX
from PIL import Image
from playwright.sync_api import Browser
from ramps import captured, coordinate_ramp, pixels_of, png
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.geometry import Rect
from skypane.layouts import begun
from skypane.markup.background import runs_of_span
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.page import page_html
from skypane.markup.picture import placement_lines
from skypane.picks import Environment
from skypane.picks.background import pick_background, read_background
from skypane.shown.plan import plan

#: A camera's ratio, 3:2, small enough to be drawn often.
RAMP = coordinate_ramp(1500, 1000)
MAST = m.Area(name="Mast", rect=Rect(x=0.75, y=0.2, w=0.2, h=0.3))
ORIGINALS = {
    1: m.Original(
        id=1,
        name="ramp.png",
        width_px=1500,
        height_px=1000,
        sha256="r",
        alt="",
        areas=(MAST,),
        focal=(0.3, 0.6),
    ),
    2: m.Original(id=2, name="night.png", width_px=1200, height_px=1000, sha256="n", alt=""),
}
HIGH, WIDE = m.ViewportHeight(percent=70), m.RatioHeight(w=3, h=1)
CASES = {
    "following": {"D": m.Treatment(original=1, height=HIGH), "B": m.Treatment(height=WIDE)},
    "fixed": {"D": m.Treatment(original=1, height=WIDE, aim=m.FixedAim(x=0.2, y=0.9))},
    "contained": {"D": m.Treatment(original=1, height=WIDE, fit="contain", background="#224466")},
    "cut": {
        "D": m.Treatment(original=1, height=HIGH, crop=Rect(x=0.1, y=0.2, w=0.8, h=0.6)),
        "B": m.Treatment(height=m.FixedHeight(height_px=300), width=m.ShareWidth(percent=60)),
    },
}


def placement(treatments, way, kind="picture", others=()):
    part = m.Part(key="quay", treatments=treatments, way=way)
    made = m.Placement(name="Quay", parts=(part, *others))
    return begun(kind, m.Site(), made) if kind != "picture" else made


def file_of(rendition) -> bytes:
    """What the file carries of the ramp."""
    whole = Image.open(io.BytesIO(RAMP)).convert("RGB")
    c = rendition.crop
    cut = whole.crop((c.x, c.y, c.x + c.w, c.y + c.h))
    size = (rendition.width_px, rendition.height_px)
    return png(np.asarray(cut.resize(size, Image.Resampling.LANCZOS)))


def put(shelf: Shelf, made, where: str, site=None, files=None):
    found = plan(site or m.Site(), made, ORIGINALS)
    of = renditions(found)
    for r in (r for _, mine in of for r in mine):
        shelf.put(f"/{where}/images/{r.name}", files(r) if files else PX, "image/png")
    css = text_of(css_lines(found, of))
    shelf.put(f"/{where}/picture.css", css, "text/css")
    html = page_html("Quay", [text_of(placement_lines(found, of))])
    return found, css, shelf.put(f"/{where}/page.html", html, "text/html")


@pytest.mark.parametrize("case", CASES)
@pytest.mark.parametrize("kind", ["picture", "banner"])
def test_a_background_shows_what_the_picture_does(browser: Browser, shelf: Shelf, case, kind):
    site = m.Site(formats=("jpeg",))
    shots = {}
    for way in ("picture", "background"):
        made = placement(CASES[case], way, kind)
        if kind == "banner":
            made = made.model_copy(update={"words": m.Words(heading="Quay")})
        _, _, url = put(shelf, made, f"{case}-{kind}-{way}", site, file_of)
        for w, h in ((375, 667), (1024, 768), (1700, 900)):
            page = browser.new_page(viewport={"width": w, "height": h})
            page.goto(url, wait_until="networkidle")
            page.evaluate("() => document.fonts.ready")
            shots.setdefault((w, h), []).append(pixels_of(captured(page)))
            page.close()
    for screen, (picture, background) in shots.items():
        assert picture.std() > 10, "nothing is drawn"
        apart = np.abs(picture - background).max(axis=2)
        # the two are scaled by the same code, rounded to whole px at their edges
        assert (apart <= 3).mean() > 0.99, (screen, float((apart <= 3).mean()))


SETS = list(itertools.product((False, True), repeat=3))


@pytest.mark.parametrize("style", ["max-width", "min-width", "range"])
def test_one_file_is_fetched_the_predicted_one_at_every_threshold(
    browser: Browser, shelf: Shelf, style
):
    others = (
        m.Part(
            of="quay",
            when=("dark",),
            treatments={"D": m.Treatment(original=2), "A": m.Treatment(show="usual")},
        ),
        m.Part(of="quay", when=("dark", "portrait"), treatments={"D": m.Treatment(show="colour")}),
        m.Part(of="quay", when=("still",), treatments={"B": m.Treatment(show="nothing")}),
    )
    made = placement({"D": m.Treatment(original=1, height=WIDE)}, "background", others=others)
    site = m.Site(media_style=style, lists="widths")
    found, css, url = put(shelf, made, style, site)
    rules = read_background(css, ".quay::before")
    of = {p.span.letter: g for g, mine in renditions(found) for p in g.spans for g in [mine]}
    posts = {
        run.first
        for p in found.parts[0].spans
        for run in runs_of_span(p, of.get(p.span.letter, ()), (1.0, 2.0))
    }
    widths = sorted({w + d for w in posts for d in (-1, 0, 1) if 320 <= w + d <= 2560})
    assert len(widths) > 12
    n = 0
    for dark, upright, still in SETS:
        for density in (1, 2):
            scheme, motion = "dark" if dark else "light", "reduce" if still else "no-preference"
            context = browser.new_context(
                color_scheme=scheme, reduced_motion=motion, device_scale_factor=density
            )
            # each condition at a third of the widths, so that all are seen under several
            n += 1
            for width in widths[n % 3 :: 3]:
                height = width + 100 if upright else max(200, width - 100)
                page = context.new_page()
                page.set_viewport_size({"width": width, "height": height})
                asked: list[str] = []
                page.on("request", lambda r, asked=asked: asked.append(r.url))
                page.goto(url, wait_until="networkidle")
                env = Environment(width, height, density, scheme, motion)
                fetched = [a.split(f"/{style}/")[1] for a in asked if "/images/" in a]
                wanted = pick_background(rules, env).url
                assert fetched == ([wanted] if wanted else []), (
                    width,
                    density,
                    dark,
                    upright,
                    still,
                )
                page.close()
            context.close()


def test_what_does_not_know_types_has_the_plain_file(browser: Browser, shelf: Shelf):
    """The same CSS with a function that no browser knows in place of `type()`."""
    made = placement(CASES["fixed"], "background")
    _, css, url = put(shelf, made, "old", m.Site(lists="densities"))
    shelf.put("/old/picture.css", css.replace("type(", "kind("), "text/css")
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    asked: list[str] = []
    page.on("request", lambda r: asked.append(r.url))
    page.goto(url, wait_until="networkidle")
    fetched = [a.rpartition("/")[2] for a in asked if "/images/" in a]
    page.close()
    assert len(fetched) == 1 and fetched[0].endswith(".jpg") and "@2x" not in fetched[0]
