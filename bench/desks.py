"""What is felt at the desk: readings over the API, drags, keys, the cursor."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from playwright.sync_api import Page
from seen import MOVED, WATCH, demo_of, metric, noise, shown, undone, upload
from words import dragged

ASK = """async ([site, path, draft, times]) => {
  const token = /csrftoken=([^;]*)/.exec(document.cookie)[1];
  const out = [];
  let size = 0;
  for (let i = 0; i < times + 5; i++) {
    draft.looks = draft.looks || {};
    for (const look of Object.values(draft.looks))
      look.focal = [0.3 + 0.4 * Math.random(), look.focal[1]];
    const began = performance.now();
    const answer = await fetch(`/api/sites/${site}/${path}`, { method: "POST",
      headers: { "Content-Type": "application/json", "X-CSRFToken": token },
      body: JSON.stringify(draft) });
    size = (await answer.text()).length;
    if (!answer.ok) throw new Error(answer.status);
    if (i >= 5) out.push((performance.now() - began) / 1000);
  }
  return { times: out, size };
}"""

STEP = """async (key) => {
  window.drawn.length = 0;
  const began = performance.now();
  document.activeElement.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true }));
  await new Promise((done) => setTimeout(done, 400));
  return window.drawn.length ? window.drawn[0] - began : null;
}"""


def readings(page: Page, make: Callable[..., Any]) -> list[str]:
    demo = demo_of(page)
    row = next(
        p
        for p in page.request.get(f"/api/sites/{demo}/placements").json()
        if p["name"] == "Lighthouse"
    )
    p = page.request.get(f"/api/placements/{row['id']}").json()
    lighthouse = {"placement": p["placement"], "placement_id": row["id"], "looks": p["looks"]}
    four = page.evaluate(ASK, [demo, "readings", {**lighthouse, "chosen": "A"}, 60])

    site = make(
        "POST", "/sites", {"name": "Bench", "plan": {"breakpoints": [480, 599, 800, 1023, 1599]}}
    )["id"]
    original = upload(page, site, "wide.jpg", noise(2600, 1450, 1))
    for i in range(40):
        upload(page, site, f"other-{i}.jpg", noise(600 + 10 * i, 480, 100 + i))
    areas = [
        {
            "name": f"Area {i}",
            "kind": "keep",
            "rect": {"x": 0.1 * i, "y": 0.3 + 0.03 * i, "w": 0.08, "h": 0.12},
        }
        for i in range(8)
    ]
    high = {"kind": "vh", "percent": 60}
    part = {"treatments": {"F": {"original": original["id"], "height": high}}}
    draft = {
        "placement": {"name": "Six", "parts": [part]},
        "looks": {original["id"]: {"focal": [0.5, 0.5], "areas": areas}},
    }
    six = page.evaluate(ASK, [site, "readings", {**draft, "chosen": "D"}, 60])
    moving = page.evaluate(ASK, [site, "readings/moving", draft, 60])
    return [
        (
            "- API, a reading of the demo's Lighthouse from a browser, another focal point each"
            f" time: {shown(four['times'])}, {four['size'] / 1000:.0f} kB before compression."
        ),
        (
            "- API, 6 spans, 8 keep areas of which some fail, three heights, 40 other originals,"
            f" another focal point each time: all of it {shown(six['times'])},"
            f" {six['size'] / 1000:.0f} kB, target p95 under 80 ms; what moves"
            f" {shown(moving['times'])}, {moving['size'] / 1000:.0f} kB."
        ),
    ]


def desk(page: Page) -> list[str]:
    """From a step of a drag, or a key, on the focal point to other panes and other bands, as they
    stand in the document."""
    demo = demo_of(page)
    row = next(
        p
        for p in page.request.get(f"/api/sites/{demo}/placements").json()
        if p["name"] == "Four boats"
    )
    page.add_init_script(WATCH)
    page.goto(f"/sites/{demo}/placements/{row['id']}/aim?width=450&span=A")
    point = page.get_by_role("slider", name="Focal point")
    point.focus()
    page.wait_for_timeout(1000)
    keys = [page.evaluate(STEP, "ArrowLeft" if i % 8 < 4 else "ArrowRight") for i in range(32)]
    by_key = [s / 1000 for s in keys if s]

    box = point.bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    dragged = []
    for i in range(40):
        page.evaluate(MOVED)
        page.mouse.move(x + 6 * (i % 9 + 1), y + 2 * (i % 5))
        page.wait_for_timeout(140)
        dragged.append(page.evaluate("window.drawn.length ? window.drawn[0] - window.moved : null"))
    page.mouse.up()
    by_drag = [s / 1000 for s in dragged if s]

    undone(page)
    return [
        "- Desk, Four boats, from a step to the frame that shows its panes and bands: dragging the"
        f" focal point {shown(by_drag)} (n = {len(by_drag)}), with a key {shown(by_key)}"
        f" (n = {len(by_key)}). Target: p95 of a drag under 100 ms."
    ]


def words(page: Page) -> list[str]:
    demo = demo_of(page)
    rows = page.request.get(f"/api/sites/{demo}/placements").json()
    lighthouse = next(p["id"] for p in rows if p["name"] == "Lighthouse")
    return dragged(page, demo, lighthouse, WATCH, MOVED, shown)


def cursor(page: Page) -> list[str]:
    """How long a step of the cursor keeps the page busy, by step of the work."""
    busy = []
    cdp = page.context.new_cdp_session(page)
    cdp.send("Performance.enable")
    for step in ("Aim", "Files"):
        page.get_by_role("navigation", name="Steps").get_by_role("button", name=step).click()
        page.wait_for_timeout(1000)
        page.get_by_label("Cursor: viewport width").focus()
        before = metric(cdp, "TaskDuration")
        for _ in range(80):
            page.keyboard.press("ArrowRight")
        page.wait_for_timeout(300)
        took = (metric(cdp, "TaskDuration") - before) / 80 * 1000
        busy.append(f"{took:.1f} ms in {step}")
    return [f"- Desk, a step of the cursor by key keeps the page busy for {', '.join(busy)}."]
