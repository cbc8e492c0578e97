"""A drawing in the page itself looks as it does in a file, but for its colour, which is that of the
text around it (against Chromium's screenshots)."""

from __future__ import annotations

import io

import numpy as np
import pytest
from conftest import Shelf
from PIL import Image
from playwright.sync_api import Browser
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.page import page_html
from skypane.markup.picture import placement_lines
from skypane.shown.plan import plan

#: A tern of one colour, with a hole and a clip.
INNER = (
    '<defs><clipPath id="c"><rect width="26" height="20"/></clipPath></defs>'
    '<path clip-path="url(#c)" d="M2 18 L15 2 L28 18 Z M15 8 L11 14 L19 14 Z" fill="#000"'
    ' fill-rule="evenodd"/><circle cx="4" cy="4" r="3" style="fill:black"/>'
)
SVG = f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 30 20" {{}}>{INNER}</svg>'
TERN = m.Original(
    id=1, name="tern.svg", width_px=30, height_px=20, sha256="t", alt="A tern", medium="drawing",
    drawing=SVG.format('width="30" height="20"'),
)  # fmt: skip
LIES = {
    "contain": m.Treatment(fit="contain", height=m.RatioHeight(w=1, h=1)),
    "start": m.Treatment(fit="contain", height=m.RatioHeight(w=3, h=1), aim=m.FixedAim(x=0, y=0.5)),
    "cover": m.Treatment(fit="cover", height=m.RatioHeight(w=3, h=1)),
}


@pytest.mark.parametrize("lies", LIES)
@pytest.mark.parametrize("width", [390, 1280])
def test_it_looks_as_its_file_does(browser: Browser, shelf: Shelf, lies, width):
    shots = {}
    for way in ("picture", "svg"):
        held = LIES[lies].model_copy(update={"original": 1, "background": "#ffffff"})
        narrow = held.model_copy(update={"width": m.FixedWidth(width_px=300)})
        part = m.Part(treatments={"D": narrow}, way=way)
        found = plan(m.Site(), m.Placement(name="Tern", parts=(part,)), {1: TERN})
        files = renditions(found)
        asked: list[str] = []
        for r in (r for _, made in files for r in made):
            c = r.crop
            box = f"{c.x} {c.y} {c.w} {c.h}"
            file = SVG.format(f'width="{r.width_px}" height="{r.height_px}"')
            file = file.replace('viewBox="0 0 30 20"', f'viewBox="{box}"')
            shelf.put(f"/images/{r.name}", file, "image/svg+xml")
        shelf.put("/picture.css", text_of(css_lines(found, files)), "text/css")
        html = page_html("Tern", [text_of(placement_lines(found, files))])
        html = html.replace("<body>", '<body style="color: #000">')
        page = browser.new_page(viewport={"width": width, "height": 700})
        page.on("request", lambda r, a=asked: a.append(r.url) if "/images/" in r.url else None)
        page.goto(shelf.put("/page.html", html, "text/html"), wait_until="networkidle")
        assert len(asked) == (0 if way == "svg" else 1)
        shots[way] = _px(page.screenshot())
        if way == "svg":
            page.evaluate("document.body.style.color = '#c02020'")
            red = _px(page.screenshot())
        page.close()
    ink = shots["svg"][..., 0] < 40
    assert ink.mean() > 0.005, "nothing is drawn"
    apart = np.abs(shots["picture"] - shots["svg"]).max(axis=2)
    # edges are smoothed by the same code, at places that differ by less than a px
    assert (apart > 8).mean() < 0.004, float((apart > 8).mean())
    assert np.abs(red[ink].mean(axis=0) - (192, 32, 32)).max() < 6


def _px(shot: bytes) -> np.ndarray:
    return np.asarray(Image.open(io.BytesIO(shot)).convert("RGB")).astype(float)
