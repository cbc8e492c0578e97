"""SVG files that are handed over, opened in Chromium by themselves: they fetch nothing."""

from __future__ import annotations

import sys
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Route

sys.path.insert(0, str(Path(__file__).parents[1] / "core/tests"))

from hostile_drawings import drawn, hostile, whole


@pytest.fixture(scope="module")
def fetched(browser: Browser):
    """What a file asks for beside itself when it is opened as a page of its own."""
    context = browser.new_context()
    page = context.new_page()
    asked: list[str] = []
    own = {"url": "", "body": ""}

    def answer(route: Route) -> None:
        if route.request.url == own["url"]:
            route.fulfill(body=own["body"], content_type="image/svg+xml")
        else:
            asked.append(route.request.url)
            route.abort()

    context.route("**/*", answer)

    def opened(svg: str, n: int) -> list[str]:
        asked.clear()
        own.update(url=f"http://drawing.example/{n}.svg", body=svg)
        page.goto(own["url"])
        page.evaluate("new Promise((done) => requestAnimationFrame(() => setTimeout(done, 30)))")
        return list(asked)

    yield opened
    context.close()


def test_no_file_that_is_handed_over_fetches_anything(fetched):
    """And many of them would have, had they been handed over as they came."""
    files = hostile()
    assert len(files) >= 60
    assert {i: said for i, f in enumerate(files) if (said := fetched(drawn(f), i))} == {}
    reach = [i for i, f in enumerate(files) if fetched(whole(f), i)]
    assert len(reach) >= 10
