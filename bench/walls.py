"""The wall of originals: many of them, and a large one brought in."""

from __future__ import annotations

import hashlib
import sys
import tempfile
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

from galleries import gallery
from playwright.sync_api import Page
from seen import ROOT, metric, noise, shown

MANY = 2000

FIRST = """
const look = () => {
  const all = [...document.querySelectorAll("button img")].filter(
    (i) => i.getBoundingClientRect().top < innerHeight);
  if (all.length > 6 && all.every((i) => i.complete && i.naturalWidth))
    window.first = performance.now();
  else requestAnimationFrame(look);
};
requestAnimationFrame(look);
"""

SCROLL = """async ([step, times]) => {
  const frames = [];
  let last = performance.now(), most = 0;
  const end = document.documentElement.scrollHeight - 1;
  for (let i = 0; i < times && scrollY + innerHeight < end; i++) {
    scrollBy(0, step);
    const late = new Promise((r) => setTimeout(r, 3000, -1));
    const drawn = await Promise.race([new Promise(requestAnimationFrame), late]);
    if (drawn === -1) throw new Error("no frame for 3 s: the browser has stopped drawing");
    const now = performance.now();
    frames.push((now - last) / 1000);
    last = now;
    most = Math.max(most, document.querySelectorAll("input[type=checkbox]").length);
  }
  return { frames, most, at: scrollY };
}"""


def fill(site_id: int) -> None:
    """Many originals: 40 brought in as an upload would be, then rows and files of their own that
    repeat them."""
    sys.path.insert(0, str(ROOT / "server"))
    import django

    django.setup()
    from django.core.files.storage import default_storage
    from originals.intake import PREVIEW_WIDTHS, take_in_path
    from originals.models import Original
    from sites.models import Site

    site = Site.objects.get(id=site_id)
    with tempfile.TemporaryDirectory() as folder:
        first = []
        for i in range(40):
            content = noise(1200 + (i * 37) % 900, 900 + (i * 53) % 700, i)
            path = Path(folder) / f"{i}.jpg"
            path.write_bytes(content)
            first.append(
                take_in_path(
                    site, path, f"picture-{i:04d}.jpg", hashlib.sha256(content).hexdigest()
                )[0]
            )
    rows = []
    for i in range(len(first), MANY):
        like, sha256 = first[i % len(first)], hashlib.sha256(f"{site_id} {i}".encode()).hexdigest()
        values = {
            f: getattr(like, f) for f in ("format", "width_px", "height_px", "size_bytes", "notes")
        }
        areas = [{"name": "A", "kind": "keep", "rect": {"x": 0.2, "y": 0.2, "w": 0.3, "h": 0.3}}]
        rows.append(
            Original(
                site=site,
                sha256=sha256,
                name=f"picture-{i:04d}.jpg",
                alt="Made up",
                areas=areas,
                **values,
            )
        )
        for width in PREVIEW_WIDTHS:
            target = Path(default_storage.path(rows[-1].preview(width)))
            target.parent.mkdir(parents=True, exist_ok=True)
            target.hardlink_to(default_storage.path(like.preview(width)))
    Original.objects.bulk_create(rows, batch_size=500)


def wall(page: Page, address: str, make: Callable[..., Any]) -> list[str]:
    site = make("POST", "/sites", {"name": "Many"})["id"]
    # the database is not to be had where the browser's events run
    with ThreadPoolExecutor(1) as pool:
        pool.submit(fill, site).result()
    cdp = page.context.new_cdp_session(page)
    cdp.send("Performance.enable")

    def heap() -> float:
        cdp.send("HeapProfiler.collectGarbage")
        return metric(cdp, "JSHeapUsedSize") / 1e6

    page.add_init_script(FIRST)
    firsts = []
    for _ in range(6):
        page.goto("about:blank")
        page.goto(f"{address}/sites/{site}/originals")
        page.wait_for_function("() => window.first")
        firsts.append(page.evaluate("window.first") / 1000)
    before = heap()
    slow = page.evaluate(SCROLL, [40, 600])
    late = sum(f > 0.05 for f in slow["frames"]) / len(slow["frames"])
    fast = page.evaluate(SCROLL, [4000, 1000])
    after = heap()
    many = gallery(page, address, make, site)

    site = make("POST", "/sites", {"name": "One large"})["id"]
    ups = []
    with tempfile.TemporaryDirectory() as folder:
        for seed in range(5):
            content = noise(6000, 4000, 9000 + seed)
            file = Path(folder) / f"large-{seed}.jpg"
            file.write_bytes(content)
            page.goto(f"{address}/sites/{site}/originals")
            page.get_by_role("heading", name="Originals").wait_for()
            page.evaluate(
                "() => document.addEventListener('change', () => { window.dropped ="
                " performance.now(); }, true)"
            )
            page.locator('input[type="file"]').set_input_files(file)
            page.wait_for_function(
                "(n) => { const b = [...document.querySelectorAll('button')].find((b) =>"
                " b.innerText.includes(n)); const i = b && b.querySelector('img'); return i &&"
                " i.complete && i.naturalWidth; }",
                arg=file.name,
                polling="raf",
            )
            ups.append(page.evaluate("performance.now() - window.dropped") / 1000)
    return [
        (
            f"- Originals page with {MANY} originals: first screen with all its pictures"
            f" {shown(firsts[1:])} (n = 5). Target: under 1 s."
        ),
        (
            f"- Scrolling there, 40 px a frame: {shown(slow['frames'])} a frame, {late * 100:.1f} %"
            f" of frames over 50 ms; to the end, {fast['at']:.0f} px down, at most"
            f" {max(slow['most'], fast['most'])} of {MANY} pictures are in the document; script"
            f" memory {before:.0f} MB before, {after:.0f} MB after."
        ),
        (
            f"- A 24 MP JPEG of {len(content) / 1e6:.0f} MB, from the file chooser to its picture"
            f" on the wall: {shown(ups)} (n = 5). Target: under 2 s."
        ),
        *many,
    ]
