"""What is felt at the desk and among the originals, measured in Chromium against the running
product."""

from __future__ import annotations

from typing import Any

from desks import cursor, desk, readings, words
from playwright.sync_api import sync_playwright
from walls import wall


def measured(address: str) -> list[str]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium", args=["--no-sandbox", "--disable-gpu"]
        )
        context = browser.new_context(viewport={"width": 1280, "height": 800}, base_url=address)
        page = context.new_page()
        page.goto("/")
        page.get_by_role("button", name="Enter as the demo designer").click()
        page.get_by_role("heading", name="Sites").wait_for()
        made = []

        def make(method: str, path: str, body: dict[str, Any] | None = None) -> Any:
            token = next(c["value"] for c in context.cookies() if c["name"] == "csrftoken")
            answer = page.request.fetch(
                f"/api{path}", method=method, headers={"X-CSRFToken": token}, data=body
            )
            assert answer.ok, answer.text()
            found = answer.json() if answer.status != 204 else None
            if path == "/sites":
                made.append(found["id"])
            return found

        try:
            return [
                *readings(page, make),
                *desk(page),
                *words(page),
                *cursor(page),
                *wall(page, address, make),
            ]
        finally:
            for site in made:
                make("DELETE", f"/sites/{site}")
            browser.close()
