"""What shows, read back from Chromium's screenshots: the delivered CSS against the reading, at
every kind of frame."""

from __future__ import annotations

import itertools

import numpy as np
import pytest
from ramps import both_ways, captured, coordinate_ramp, pixels_of, png, seen_window
from skypane.files.renditions import renditions
from skypane.geometry import Rect
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.page import page_html
from skypane.markup.pane import pane_lines
from skypane.markup.picture import placement_lines
from skypane.model import (
    Area,
    FixedAim,
    FixedHeight,
    FixedWidth,
    Following,
    FullWidth,
    HeightRange,
    NaturalHeight,
    Original,
    RatioHeight,
    ShareWidth,
    Site,
    Treatment,
    ViewportHeight,
    picture,
)
from skypane.pixels.encode import make
from skypane.shown.fit import shows, windows
from skypane.shown.plan import plan

W, H = 1200, 800
AREAS = (
    Area(name="First", rect=Rect(x=0.62, y=0.55, w=0.2, h=0.25)),
    Area(name="Second", rect=Rect(x=0.1, y=0.1, w=0.25, h=0.2)),
)
MIRROR = """async () => {
  for (const s of document.querySelectorAll("source")) s.srcset = "/mirror.png";
  const img = document.querySelector("img");
  img.src = "/mirror.png";
  await img.decode();
}"""
SITE = Site(heights=(HeightRange(to_px=7680, least_px=500, typical_px=800, greatest_px=1100),))
WINDOWS = [(340, 520), (599, 1080), (777, 700), (1300, 620), (1900, 1000)]
FRAMES = {
    "ratio": {"height": RatioHeight(w=4, h=5)},
    "px": {"height": FixedHeight(height_px=500)},
    "vh": {"height": ViewportHeight(percent=60)},
    "bounded": {
        "height": ViewportHeight(percent=90, least_px=300, greatest_px=620),
        "width": ShareWidth(percent=70, least_px=280),
    },
    "container": {
        "height": FixedHeight(height_px=333),
        "width": ShareWidth(percent=50, of="container"),
    },
    "natural": {"height": NaturalHeight(greatest_px=400), "width": FullWidth()},
}
AIMS = {
    "focal": Following(areas=False),
    "areas": Following(),
    "fixed": FixedAim(x=0.15, y=0.85),
}


def original(focal=(0.7, 0.3), size=(W, H)):
    return Original(
        id=1, name="ramp.png", width_px=size[0], height_px=size[1], focal=focal, areas=AREAS
    )


@pytest.fixture(scope="module")
def ramp(shelf):
    shelf.put("/mirror.png", coordinate_ramp(W, H, mirrored=True), "image/png")
    return shelf.put("/ramp.png", coordinate_ramp(W, H), "image/png")


def frame_at(plans, width, height):
    """The frame and window that the rules give for one viewport."""
    from skypane.widths.frames import frame_heights, frame_widths

    p = next(p for p in plans.parts[0].shown if p.span.first <= width <= p.span.last)
    v, vh = np.array([float(width)]), np.array([float(height)])
    fw = frame_widths(p.effective.width, v, SITE.container)
    fh = frame_heights(p.effective.height, fw, vh, p.picture.ratio)
    return fw, fh, windows(p.picture, p.effective.fit, p.effective.aim, fw, fh)


@pytest.mark.parametrize(("frame", "aim"), list(itertools.product(FRAMES, AIMS)))
def test_chromium_shows_the_window_that_the_rules_give(browser, shelf, ramp, frame, aim):
    """6 frames × 3 aims × 5 windows = 90, within what one device px covers (Chromium's whole-px
    snapping counted in)."""
    placement = picture(
        name="Spot",
        treatments={"D": Treatment(original=1, aim=AIMS[aim], stands="start", **FRAMES[frame])},
    )
    plans = plan(SITE, placement, {1: original()})
    style = text_of(css_lines(plans, whole=True))
    markup = text_of(pane_lines(plans, lambda *_: "/ramp.png"))
    url = shelf.put(
        f"/{frame}-{aim}",
        f"<!doctype html><style>body{{margin:0}}{style}</style>{markup}",
        "text/html",
    )
    page = browser.new_page()
    for width, height in WINDOWS:
        page.set_viewport_size({"width": width, "height": height})
        page.goto(url)
        box = page.locator("picture").bounding_box()
        fw, fh, expected = frame_at(plans, width, height)
        assert box is not None
        assert (box["width"], box["height"]) == (
            pytest.approx(fw[0], abs=0.02),
            pytest.approx(fh[0], abs=0.02),
        )
        # whole px inside the frame only, so that no half-covered px is read
        assert box["x"] == int(box["x"])
        clip = {"x": box["x"], "y": 0, "width": int(fw[0]), "height": int(fh[0])}
        rising = pixels_of(captured(page, clip=clip, full_page=True))
        page.evaluate(MIRROR)
        seen = seen_window(both_ways(rising, pixels_of(captured(page, clip=clip, full_page=True))))
        # Chromium stretches the picture onto whole px (docs/chromium.md §7), which moves an edge by
        # up to half a px
        x0, x1 = snapped(expected.x0[0], expected.drawn_w[0], clip["width"])
        y0, y1 = snapped(expected.y0[0], expected.drawn_h[0], clip["height"])
        # of the picture, for half a device px
        tolerance = 0.5 / min(expected.drawn_w[0], expected.drawn_h[0])
        assert seen == pytest.approx((x0, x1, y0, y1), abs=tolerance), (width, height)
    page.close()


def snapped(first: float, drawn: float, room: float) -> tuple[float, float]:
    """The window in fractions once the drawn picture's edges lie on whole px."""
    left, right = np.floor(-first * drawn + 0.5), np.floor(-first * drawn + drawn + 0.5)
    return -left / (right - left), (room - left) / (right - left)


@pytest.mark.parametrize("fit", ["cover", "contain", "fill", "none", "scale-down"])
def test_the_five_fits(browser, shelf, ramp, fit):
    page = browser.new_page(viewport={"width": 900, "height": 1000})
    for frame, position in [
        ((300, 500), (0.2, 0.5)),
        ((800, 300), (0.5, 0.9)),
        ((640, 640), (0, 1)),
    ]:
        url = shelf.put(
            "/fit",
            "<!doctype html><style>body{margin:0;background:#000}"
            f"img{{display:block;width:{frame[0]}px;height:{frame[1]}px;object-fit:{fit};"
            f"object-position:{position[0] * 100}% {position[1] * 100}%}}</style>"
            '<img src="/ramp.png">',
            "text/html",
        )
        page.goto(url)
        shot = pixels_of(
            captured(page, clip={"x": 0, "y": 0, "width": frame[0], "height": frame[1]})
        )
        expected = shows((W, H), frame, fit, position)
        painted = shot[:, :, 2] > 100  # the picture's blue, which the page behind has not
        rows, columns = np.flatnonzero(painted.any(axis=1)), np.flatnonzero(painted.any(axis=0))
        left, top = max(0, expected.drawn.x), max(0, expected.drawn.y)
        assert columns[0] == pytest.approx(left, abs=1) and rows[0] == pytest.approx(top, abs=1)
        inside = shot[rows[0] + 1 : rows[-1], columns[0] + 1 : columns[-1]]
        sx, sy = expected.drawn.w / W, expected.drawn.h / H
        x0, x1, y0, y1 = seen_window(inside)
        v = expected.visible
        assert (x0 * W, x1 * W) == pytest.approx((v.x, v.x + v.w), abs=2.5 / sx)
        assert (y0 * H, y1 * H) == pytest.approx((v.y, v.y + v.h), abs=2.5 / sy)
    page.close()


def waves(width, height):
    """Soft waves: resampling hardly changes them, a shift of one px on screen changes many px by
    several levels."""
    x, y = np.meshgrid(np.arange(width), np.arange(height))
    base = 128 + 60 * np.sin(x / 37) * np.cos(y / 41)
    return png(
        np.stack(
            [base, 128 + 70 * np.sin((x + y) / 53), 128 + 70 * np.cos((x - 2 * y) / 61)], axis=-1
        )
    )


def test_the_delivered_page_looks_like_the_same_page_with_whole_originals(browser, shelf, tmp_path):
    """Cut files and their CSS against whole originals and theirs, at 12 widths, focal point and
    keep areas followed."""
    size = (2600, 1600)
    source = tmp_path / "waves.png"
    source.write_bytes(waves(*size))
    # lossless PNG files, so that only resampling differs
    big = original(size=size).model_copy(update={"alpha": True})
    placement = picture(
        name="Spot",
        treatments={
            "D": Treatment(original=1, height=ViewportHeight(percent=60)),
            "C": Treatment(
                height=FixedHeight(height_px=500), width=ShareWidth(percent=80), stands="start"
            ),
            "B": Treatment(height=RatioHeight(w=1, h=1), width=FixedWidth(width_px=500)),
            "A": Treatment(
                height=FixedHeight(height_px=480), width=FullWidth(), aim=FixedAim(x=0.3, y=0.2)
            ),
        },
    )
    site = SITE.model_copy(update={"formats": ("jpeg",), "widest": 2000, "lists": "densities"})
    plans = plan(site, placement, {1: big})
    files = renditions(plans, "quick")
    wanted = [r for _, mine in files for r in mine]
    assert len(wanted) == 8
    named = {r.key: r.name for r in wanted}
    for r, path, _ in make(source, wanted, tmp_path):
        shelf.put(f"/cut/images/{named[r.key]}", path.read_bytes(), "image/png")
    shelf.put("/cut/picture.css", text_of(css_lines(plans)), "text/css")
    cut = shelf.put(
        "/cut/page",
        page_html(placement.name, [text_of(placement_lines(plans, files))]),
        "text/html",
    )
    shelf.put("/whole/waves.png", source.read_bytes(), "image/png")
    shelf.put("/whole/picture.css", text_of(css_lines(plans, whole=True)), "text/css")
    whole = shelf.put(
        "/whole/page",
        page_html(placement.name, [text_of(pane_lines(plans, lambda *_: "waves.png"))]),
        "text/html",
    )

    for width in (320, 400, 512, 599, 600, 800, 1023, 1024, 1300, 1599, 1600, 1990):
        for density in (1, 2) if width in (400, 1300) else (1,):
            context = browser.new_context(
                viewport={"width": width, "height": 760}, device_scale_factor=density
            )
            shots = []
            for url in (cut, whole):
                page = context.new_page()
                page.goto(url)
                page.evaluate("document.querySelector('img').decode()")
                shots.append(pixels_of(page.locator("picture").screenshot()))
            context.close()
            gap = np.abs(shots[0] - shots[1])
            # a shift of one px is 5 levels and more at the steepest places of these waves;
            # resampling leaves 1 to 3
            assert gap.max() <= 4 and gap.mean() < 1.5, (width, density, gap.max(), gap.mean())
