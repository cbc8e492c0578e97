"""What is seen of a picture while its file is under way, and where it does not come; against the px
of Chromium's screenshots."""

from __future__ import annotations

import io
import threading

import numpy as np
import pytest
from conftest import Shelf
from delivered import made, put
from PIL import Image
from playwright.sync_api import Browser, Page
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.markup.substitute import substitute_of
from skypane.model.tiny import Tiny

#: Red above, blue below; the middle third of the width is green.
PX = np.zeros((8, 24, 3), np.uint8)
PX[:4], PX[4:], PX[:, 8:16] = (200, 20, 20), (20, 20, 200), (20, 200, 20)
QUAY = m.Original(
    id=1, name="quay.jpg", width_px=6000, height_px=2000, sha256="q", alt="A quay",
    tiny=Tiny.of(24, PX.tobytes()),
)  # fmt: skip
BUOY = m.Original(id=2, name="buoy.jpg", width_px=1600, height_px=900, sha256="b", alt="")
ALL = {1: QUAY, 2: BUOY}


def picture(wide, high, of=PX):
    """A JPEG of the px, as large as a file of the delivery."""
    image = Image.fromarray(of).resize((wide, high), Image.Resampling.NEAREST)
    out = io.BytesIO()
    image.save(out, "JPEG", quality=95)
    return out.getvalue()


def seen(page: Page) -> np.ndarray:
    shot = page.locator(".nine").screenshot()
    return np.asarray(Image.open(io.BytesIO(shot)).convert("RGB")).astype(float)


@pytest.mark.parametrize("fit", ["cover", "contain"])
@pytest.mark.parametrize("kind", ["picture", "grid", "banner"])
@pytest.mark.parametrize("width", [390, 1280])
def test_the_blurred_one_lies_where_the_picture_comes(browser: Browser, shelf, kind, width, fit):
    placement = made(kind, ALL, {"D": {}}, shown=(1,), blurred=True)
    square = m.RatioHeight(w=1, h=1)
    held = m.Treatment(original=1, fit=fit, height=square, aim=m.FixedAim(x=1, y=0))
    if kind == "grid":
        placement = placement.model_copy(update={"common": {"D": m.Treatment(height=square)}})
        held = held.model_copy(update={"height": None})
    part = placement.parts[0].model_copy(update={"treatments": {"D": held}})
    placement = placement.with_part(0, part)
    found, url = put(shelf, placement, ALL)
    for _, files in renditions(found):
        for f in files:
            left, right = f.crop.x * 24 / 6000, (f.crop.x + f.crop.w) * 24 / 6000
            px = PX[:, round(left) : max(round(left) + 1, round(right))]
            shelf.put(f"/images/{f.name}", picture(f.width_px, f.height_px, px), "image/jpeg")
    page = browser.new_page(viewport={"width": width, "height": 900})
    let = threading.Event()
    page.route("**/images/**", lambda r: r.continue_() if let.is_set() else r.abort())
    page.goto(url, wait_until="commit")
    page.locator(".nine").wait_for()
    page.evaluate("for (const i of document.images) i.alt = ''")
    before = seen(page)
    let.set()
    page.reload()
    page.wait_for_function("[...document.images].every((i) => i.complete && i.naturalWidth)")
    after = seen(page)
    page.close()
    assert before.shape == after.shape
    # blurred, it is as red, green and blue as the picture, field by field
    h, w = before.shape[0] // 4, before.shape[1] // 4
    means = [
        a[: 4 * h, : 4 * w].reshape(4, h, 4, w, 3).mean(axis=(1, 3)).ravel()
        for a in (before, after)
    ]
    assert np.abs(means[0] - means[1]).mean() < 25
    assert np.corrcoef(*means)[0, 1] > 0.9


def test_another_one_shows_where_files_do_not_come(browser: Browser, shelf: Shelf):
    """Before and after the script runs, lazy or not; never where a span shows none."""
    held = {"D": m.Treatment(original=1), "A": m.Treatment(show="colour")}
    placement = made("grid", ALL, {"D": {"columns": 1}}, shown=(1, 1), substitute=2)
    parts = tuple(p.model_copy(update={"treatments": held}) for p in placement.parts)
    placement = placement.model_copy(update={"parts": parts})
    found, url = put(shelf, placement, ALL)
    name = substitute_of(found).name
    page = browser.new_page(viewport={"width": 1280, "height": 300})
    asked = []

    def answer(route):
        asked.append(route.request.url.rpartition("/")[2])
        if name in route.request.url:
            return route.fulfill(body=picture(960, 540), content_type="image/jpeg")
        return route.fulfill(status=404)

    page.route("**/images/**", answer)
    page.goto(url)
    here = f"i.currentSrc.endsWith('{name}') && i.naturalWidth"
    showing = f"[...document.images].filter((i) => {here}).length"
    page.wait_for_function(f"{showing} >= 1")
    # the second is far below, and is asked for when it comes near
    page.set_viewport_size({"width": 1280, "height": 3000})
    page.wait_for_function(f"{showing} === 2")
    assert asked.count(name) <= 2  # one alone, or once more where no cache keeps it
    page.set_viewport_size({"width": 390, "height": 3000})
    page.wait_for_timeout(200)
    assert page.evaluate("[...document.images].every((i) => i.currentSrc.startsWith('data:'))")
    page.goto(url)
    page.wait_for_timeout(200)
    assert page.evaluate("[...document.images].every((i) => i.currentSrc.startsWith('data:'))")
    page.close()


def test_where_that_does_not_come_either_the_alt_text_stands(browser: Browser, shelf: Shelf):
    found, url = put(shelf, made("picture", ALL, {}, shown=(1,), substitute=2), ALL)
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    asked = []
    page.route("**/images/**", lambda r: (asked.append(r.request.url), r.fulfill(status=404)))
    page.goto(url)
    page.wait_for_timeout(500)
    assert sum(substitute_of(found).name in u for u in asked) == 1 and len(asked) == 2
    assert page.locator(".nine img").get_attribute("alt") == "A quay"
    page.close()
