"""Debian's Chromium, and a small web server that gives out whatever a test puts on it."""

from __future__ import annotations

import http.server
import os
import threading
from collections.abc import Iterator
from dataclasses import dataclass, field
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright

#: Two browsers, their server and an export may share two slow cores: what is waited for may come
#: late, and nothing is measured by it.
expect.set_options(timeout=15_000)

CHROMIUM = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--force-color-profile=srgb",
]


@dataclass
class Shelf:
    """Answers by path. What is not there is `fallback` (bytes, kind), or 404."""

    address: str
    things: dict[str, tuple[bytes, str]] = field(default_factory=dict)
    fallback: tuple[bytes, str] | None = None

    def put(self, path: str, body: bytes | str, kind: str) -> str:
        self.things[path] = (body.encode() if isinstance(body, str) else body, kind)
        return self.address + path


@pytest.fixture(scope="module")
def shelf() -> Iterator[Shelf]:
    class Handler(http.server.BaseHTTPRequestHandler):
        protocol_version = "HTTP/1.1"

        def do_GET(self) -> None:
            found = made.things.get(self.path.split("?")[0]) or made.fallback
            body, kind = found or (b"", "text/plain")
            self.send_response(200 if found else 404)
            self.send_header("Content-Type", kind)
            self.send_header("Content-Length", str(len(body)))
            self.send_header("Cache-Control", "no-store")
            self.end_headers()
            self.wfile.write(body)

        def log_message(self, *args: object) -> None:
            pass

    server = http.server.ThreadingHTTPServer(("127.0.0.1", 0), Handler)
    made = Shelf(f"http://127.0.0.1:{server.server_port}")
    threading.Thread(target=server.serve_forever, daemon=True).start()
    yield made
    server.shutdown()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        yield chromium
        chromium.close()


@pytest.fixture(scope="session")
def address() -> str:
    """Where the product runs; `./run test` starts it."""
    found = os.environ.get("ADDRESS")
    if not found:
        pytest.fail("These tests need the running product: ./run test starts it and sets ADDRESS.")
    return found


@pytest.fixture(scope="session", autouse=True)
def said_before() -> dict[Path, int]:
    """How long the product's logs were when these tests began: they go on from earlier runs."""
    folder = Path(os.environ.get("SKYPANE_VAR", "nowhere")) / "log"
    return {path: path.stat().st_size for path in folder.glob("*.log")}


@pytest.fixture
def page(browser: Browser, address: str) -> Iterator[Page]:
    """A page signed in as the demo designer. Anything the browser complains about fails the
    test."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, accept_downloads=True)
    made = context.new_page()
    complaints: list[str] = []
    made.on("pageerror", lambda e: complaints.append(str(e)))
    made.goto(address)
    made.get_by_role("button", name="Enter as the demo designer").click()
    made.get_by_role("heading", name="Sites").wait_for()
    yield made
    context.close()
    assert complaints == []
