"""What the benchmarks in the browser share."""

from __future__ import annotations

import io
import statistics
from pathlib import Path
from typing import Any

import numpy as np
from PIL import Image
from playwright.sync_api import CDPSession, Page

ROOT = Path(__file__).parents[1]

#: Tells when the answer to a reading has been drawn: two frames after it has arrived.
WATCH = """
const ask = window.fetch;
window.drawn = [];
window.fetch = async (...a) => {
  const answer = await ask(...a);
  if (String(a[0].url || a[0]).includes("/readings")) {
    await answer.clone().text();
    requestAnimationFrame(() => requestAnimationFrame(() => window.drawn.push(performance.now())));
  }
  return answer;
};
"""

#: The moment at which the pointer's next move arrives.
MOVED = """() => {
  window.drawn.length = 0;
  addEventListener("pointermove", () => { window.moved = performance.now(); },
    { capture: true, once: true });
}"""


def noise(width: int, height: int, seed: int) -> bytes:
    """A JPEG of soft random patches: neither flat nor pure noise, so that its bytes are those of a
    photograph."""
    rng = np.random.default_rng(seed)
    small = Image.fromarray(
        rng.integers(0, 255, (max(2, height // 40), max(2, width // 40), 3), dtype=np.uint8)
    )
    patches = np.asarray(small.resize((width, height), Image.Resampling.BICUBIC)).astype(np.int16)
    grain = rng.normal(0, 6, (height, width, 1)).astype(np.int16)
    out = io.BytesIO()
    Image.fromarray((patches + grain).clip(0, 255).astype(np.uint8)).save(out, "JPEG", quality=90)
    return out.getvalue()


def shown(values: list[float], unit: str = "ms", scale: float = 1000) -> str:
    ordered = sorted(values)
    return (
        f"median {statistics.median(values) * scale:.0f} {unit}, p95"
        f" {ordered[max(0, int(len(ordered) * 0.95) - 1)] * scale:.0f} {unit}"
    )


def demo_of(page: Page) -> int:
    found: int = next(
        s["id"] for s in page.request.get("/api/sites").json() if s["name"] == "Tern Point"
    )
    return found


def upload(page: Page, site: int, name: str, content: bytes) -> dict[str, Any]:
    token = next(c["value"] for c in page.context.cookies() if c["name"] == "csrftoken")
    answer = page.request.post(
        f"/api/sites/{site}/originals",
        headers={"X-CSRFToken": token},
        multipart={"file": {"name": name, "mimeType": "image/jpeg", "buffer": content}},
    )
    assert answer.ok, answer.text()
    found: dict[str, Any] = answer.json()
    return found


def metric(cdp: CDPSession, name: str) -> float:
    """One of the browser's counters; times in seconds."""
    found: float = next(
        m["value"] for m in cdp.send("Performance.getMetrics")["metrics"] if m["name"] == name
    )
    return found


def undone(page: Page) -> None:
    """Takes back what was done at the desk, and waits until that is kept."""
    for _ in range(60):
        undo = page.get_by_role("button", name="Undo")
        if undo.is_disabled():
            break
        undo.click()
    page.wait_for_timeout(1200)
