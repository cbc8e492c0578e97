"""What axe knows of accessibility (WCAG 2.2 A and AA), asked of the screen that is open."""

from __future__ import annotations

from contextlib import suppress
from pathlib import Path

from playwright.sync_api import Page, TimeoutError

AXE = (Path(__file__).parents[1] / "web/node_modules/axe-core/axe.min.js").read_text()
RUN = """async (within) => {
  const found = await axe.run(within || document, {
    runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"], iframes: false });
  const where = (v) => v.nodes.map((n) => n.target.join(" ")).slice(0, 3).join(" | ");
  return found.violations.map((v) => v.id + ": " + where(v));
}"""


def axe_clean(page: Page) -> None:
    """Fails with what axe finds."""
    with suppress(TimeoutError):  # requests of panes that were swapped are never told as ended
        page.wait_for_load_state("networkidle", timeout=5_000)
    page.wait_for_timeout(300)  # what fades in has its colour then
    page.evaluate(AXE)
    found = page.evaluate(RUN, None)
    assert not found, found
