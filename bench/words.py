"""Words on pictures: contrast over all widths in the core, and a drag of the words in the
browser."""

from __future__ import annotations

import statistics
import time
from itertools import count
from pathlib import Path
from typing import Any

from playwright.sync_api import Page
from seen import undone
from skypane import read_moving
from skypane.model import (
    PLACES,
    Button,
    Original,
    Part,
    Placement,
    RatioHeight,
    Site,
    Treatment,
    ViewportHeight,
    Words,
)
from skypane.pixels.load import values_of
from skypane.pixels.previews import preview
from skypane.shown.plan import plan
from skypane.shown.readable import seen_in
from skypane.words.copies import Copies, copies

ROOT = Path(__file__).parents[1]
ORIGINALS = {
    1: Original(id=1, name="lighthouse-wide.jpg", width_px=5200, height_px=2900, sha256="w"),
    2: Original(id=2, name="lighthouse-tall.jpg", width_px=2900, height_px=4300, sha256="t"),
}


def banner(layout: dict[str, dict[str, Any]]) -> Placement:
    part = Part(
        treatments={
            "D": Treatment(original=1, height=ViewportHeight(percent=70, least_px=480)),
            "C": Treatment(height=RatioHeight(w=2, h=1)),
            "A": Treatment(original=2, height=RatioHeight(w=4, h=5)),
        }
    )
    words = Words(
        heading="The last light before the open sea",
        text="Crossings from the old jetty, every day that the swell allows.",
        buttons=(Button(label="Plan a crossing"),),
    )
    return Placement(name="Lighthouse", kind="banner", parts=(part,), words=words, layout=layout)


def contrast(folder: Path, ms: Any) -> list[str]:
    """Every time with the words elsewhere and another scrim, so that nothing is known."""
    px: dict[int, Copies] = {}
    for original in ORIGINALS.values():
        small = folder / f"{original.id}.webp"
        preview(ROOT / "demo/originals" / original.name, small, 3200)
        px[original.id] = copies(values_of(small))
    at = count()
    took: list[float] = []
    whole: list[float] = []
    for i in range(32):
        n = next(at)
        scrim = {"kind": "linear", "angle": 90 + 0.01 * n}
        layout = {"D": {"place": PLACES[n % 9], "percent": 40 + n % 7, "scrim": scrim}}
        placement = banner({**layout, "A": {"percent": 100, "heading_px": 27 + 0.1 * n}})
        computed = plan(Site(), placement, ORIGINALS)
        began = time.perf_counter()
        for p in computed.parts[0].spans:
            assert seen_in(p, lambda o: px[o.id])
        middle = time.perf_counter()
        moved = placement.model_copy(update={"name": f"Lighthouse {i}"})
        read_moving(Site(), moved, ORIGINALS, pixels=lambda o: px[o.id])
        if i > 1:
            took.append(middle - began)
            whole.append(time.perf_counter() - middle)
    return [
        f"- Core, contrast of heading, text and button over all 2241 widths, 4 spans, one in vh at"
        f" three heights, with a gradient, words elsewhere each time: {ms(took)}, least"
        f" {min(took) * 1000:.1f} ms. Target: under 60 ms. The rest of what moves then takes"
        f" {statistics.median(whole) * 1000:.1f} ms."
    ]


def dragged(page: Page, demo: int, placement: int, watch: str, moved: str, shown: Any) -> list[str]:
    """From a move of the pointer that puts the words elsewhere to the frame that shows the new
    bands."""
    page.add_init_script(watch)
    page.goto(f"/sites/{demo}/placements/{placement}/words?width=1280")
    heading = page.locator("[data-text=heading]")
    heading.wait_for()
    page.wait_for_timeout(1500)
    box = heading.bounding_box()
    assert box
    x, y = box["x"] + 30, box["y"] + 8
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 20, y + 2, steps=3)
    took = []
    for i in range(40):
        page.evaluate(moved)
        page.mouse.move((90, 240, 390)[i % 3], (560, 640, 720)[i // 3 % 3])
        page.wait_for_timeout(260)
        took.append(page.evaluate("window.drawn.length ? window.drawn[0] - window.moved : null"))
    page.mouse.up()
    undone(page)
    seconds = [t / 1000 for t in took if t]
    return [
        "- Desk, Lighthouse, words dragged from place to place, to the frame that shows the new"
        f" bands: {shown(seconds)} (n = {len(seconds)}). Target: within 150 ms."
    ]
