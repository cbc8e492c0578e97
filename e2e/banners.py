"""Banners in pages of their own: a made-up picture, the delivered markup and CSS, and what the core
says of them."""

from __future__ import annotations

import io
from dataclasses import dataclass, replace

import numpy as np
from PIL import Image
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.markup.css import css_lines
from skypane.markup.fonts import fetched_first, font_lines
from skypane.markup.lines import text_of
from skypane.markup.page import page_html
from skypane.markup.picture import placement_lines
from skypane.shown.nouns import Plan
from skypane.shown.plan import plan
from skypane.words.copies import Copies, copies
from skypane.words.faces import FACES

HEADING = "The last light before the open sea"
TEXT = "Crossings from the old jetty, every day that the swell allows."
WORDS = m.Words(
    heading=HEADING,
    text=TEXT,
    buttons=(
        m.Button(label="Plan a crossing", href="/crossings"),
        m.Button(label="Call the station", href="tel:+10000"),
    ),
)


def sky(width: int, height: int, grain: float) -> np.ndarray:
    """A sky that is bright on the right and dark on the left, with the grain that a photograph has
    once it is this small, in levels."""
    y, x = np.mgrid[0:height, 0:width]
    noise = np.random.default_rng(7).normal(0, grain, (height, width))
    light = 70 + 120 * x / width + 25 * np.sin(y / 37) + noise
    pixels = np.stack([light * 0.85, light * 0.95, light + 20], axis=-1)
    return pixels.clip(0, 255).astype("uint8")


def png(pixels: np.ndarray) -> bytes:
    out = io.BytesIO()
    Image.fromarray(pixels).save(out, "PNG")
    return out.getvalue()


@dataclass
class Shown:
    """A banner at one address, with everything that a reading of it needs."""

    plan: Plan
    url: str
    pixels: Copies
    files: dict[str, Copies]  # the px of each span's file, by letter

    def px(self, original: m.Original) -> Copies:
        return self.pixels


def put(shelf, placement: m.Placement, *, site: m.Site | None = None, grain: float = 1.5) -> Shown:
    """The banner on the shelf, its picture without loss at every size, as its files ask for."""
    site = site or m.Site(lists="densities", densities=(1,), formats=("jpeg",))
    pixels = sky(1600, 900, grain)
    original = m.Original(
        id=1,
        name="sky.png",
        width_px=pixels.shape[1],
        height_px=pixels.shape[0],
        sha256="5",
        flat=True,
        focal=(0.6, 0.4),
    )
    found = plan(site, placement, {1: original})
    files = renditions(found)
    css = text_of((*font_lines([found]), *css_lines(found)))
    html = page_html(
        "Banner", [text_of(placement_lines(found, files))], fonts=fetched_first([found])
    )
    shelf.put("/picture.css", css, "text/css")
    for file in (f for face in FACES.values() for f in face.files):
        shelf.put(f"/fonts/{file.name}", file.path.read_bytes(), "font/woff2")
    image, made = Image.fromarray(pixels), {}
    for rendition in (r for _, mine in files for r in mine):
        c = rendition.crop
        size = (rendition.width_px, rendition.height_px)
        cut = image.resize(size, Image.Resampling.LANCZOS, (c.x, c.y, c.x + c.w, c.y + c.h))
        shelf.put(f"/images/{rendition.name}", png(np.asarray(cut)), "image/png")
        px = replace(copies(np.asarray(cut)), file_width=rendition.width_px)
        made |= dict.fromkeys(rendition.spans, px)
    return Shown(found, shelf.put("/banner.html", html, "text/html"), copies(pixels), made)


def banner(layout: dict, treatments: dict | None = None, words: m.Words = WORDS) -> m.Placement:
    held = treatments or {"D": m.Treatment(height=m.RatioHeight(w=2, h=1))}
    held["D"] = held["D"].model_copy(update={"original": 1})
    return m.Placement(
        name="Quay", kind="banner", words=words, parts=(m.Part(treatments=held),), layout=layout
    )


def opened(browser, shown: Shown, width: int, height: int = 800):
    page = browser.new_page(viewport={"width": width, "height": height})
    page.goto(shown.url)
    page.evaluate("document.fonts.ready")
    return page
