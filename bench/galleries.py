"""A grid of many items: its reading, and its page scrolled."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import Any

from playwright.sync_api import Page
from seen import shown

#: Items of the large grid.
ITEMS = 300

SCROLL_PAGE = """async ([step, times]) => {
  const sky = document.querySelector("figure").parentElement;
  const frames = [];
  let last = performance.now();
  for (let i = 0; i < times && sky.scrollTop + sky.clientHeight < sky.scrollHeight - 1; i++) {
    sky.scrollBy(0, step);
    await new Promise(requestAnimationFrame);
    const now = performance.now();
    frames.push((now - last) / 1000);
    last = now;
  }
  return frames;
}"""


def gallery(page: Page, address: str, make: Callable[..., Any], site: int) -> list[str]:
    """A grid of 300 items: its reading with one of them aimed anew each time, and its page
    scrolled."""
    ids = [o["id"] for o in page.request.get(f"{address}/api/sites/{site}/originals").json()]
    home = make("POST", f"/sites/{site}/pages", {"title": "Views"})["id"]
    noun = {
        "name": "Views",
        "kind": "grid",
        "common": {"D": {"height": {"kind": "ratio", "w": 3, "h": 2}}},
        "layout": {"D": {"columns": 4}, "B": {"columns": 2}, "A": {"columns": 1}},
        "parts": [{"treatments": {"D": {"original": i}}} for i in ids[:ITEMS]],
    }
    placement = make("POST", f"/pages/{home}/placements", {"placement": noun})["id"]
    draft = {"placement": noun, "placement_id": placement, "part": 7, "chosen": "D"}
    took: dict[str, list[float]] = {"": [], "/moving": []}
    for i in range(24):
        aim = {"kind": "fixed", "x": (i + 1) / 100, "y": 0.5}
        noun["parts"][7] = {"treatments": {"D": {"original": ids[7], "aim": aim}}}
        for path, times in took.items():
            body = {**draft, "every": False} if not path else draft
            began = time.perf_counter()
            make("POST", f"/sites/{site}/readings{path}", body)
            if i > 3:
                times.append(time.perf_counter() - began)
    page.goto(f"{address}/sites/{site}/pages/{home}?width=900")
    page.wait_for_function(
        "(n) => { const f = [...document.querySelectorAll('iframe')]; return f.length > 3 &&"
        " f.every((e) => e.contentDocument.images.length >= n &&"
        " [...e.contentDocument.images].every((i) => i.complete)); }",
        arg=ITEMS,
        timeout=120_000,
    )
    frames = page.evaluate(SCROLL_PAGE, [30, 240])
    late = sum(f > 1 / 59 for f in frames) / len(frames)
    return [
        f"- API, a grid of {ITEMS} items, one of them aimed anew each time: all of the reading"
        f" {shown(took[''])}, what moves {shown(took['/moving'])}. Target: under 150 ms.",
        f"- Its page at four widths scrolled, 30 px a frame: {shown(frames)} a frame,"
        f" {late * 100:.0f} % of frames later than a sixtieth of a second. Target: 60 a second.",
    ]
