"""How the product's own files and connections are served."""

import fcntl
import os
import re
import socket
import subprocess
from pathlib import Path

import pytest


@pytest.fixture
def desk(page, address):
    """A page that has just been opened at the desk, whose cache is empty."""
    sites = page.request.get(f"{address}/api/sites").json()
    site = next(s["id"] for s in sites if s["name"] == "Tern Point")
    placement = page.request.get(f"{address}/api/sites/{site}/placements").json()[0]["id"]
    page.context.new_cdp_session(page).send("Network.setCacheDisabled", {"cacheDisabled": True})
    page.goto(f"{address}/sites/{site}/placements/{placement}/aim")
    page.locator('section[aria-label^="Horizon"]').wait_for()
    page.locator('section[aria-label="Ground"] button').first.wait_for()
    return page


@pytest.mark.parametrize("encoding", ["br", "gzip"])
def test_scripts_and_styles_come_packed_for_a_year(page, address, encoding):
    html = page.request.get(address).text()
    paths = re.findall(r'(?:src|href)="(/assets/[^"]+\.(?:js|css))"', html)
    assert paths
    for path in paths:
        answer = page.request.get(address + path, headers={"Accept-Encoding": encoding})
        told = answer.headers
        assert "immutable" in told["cache-control"] and "max-age=315360000" in told["cache-control"]
        assert "access-control-allow-origin" not in told
        if len(answer.body()) > 1000:
            assert told["content-encoding"] == encoding


def test_the_desk_needs_at_most_150_kb_of_script_to_show(desk, address):
    """As they travel: all that the document names, which is what the sky and the horizon are drawn
    by. A step of the ground is a piece of its own."""
    scripts = re.findall(r'(?:src|href)="(/assets/[^"]+\.js)"', desk.request.get(desk.url).text())
    assert any("/Desk-" in path for path in scripts)
    sizes = desk.evaluate(
        """() => Object.fromEntries(performance.getEntriesByType('resource')
          .map((e) => [new URL(e.name).pathname, e.encodedBodySize]))"""
    )
    assert 50_000 < sum(sizes[path] for path in set(scripts)) <= 150_000


def test_the_desk_asks_once_for_what_it_shows_first(desk):
    """Its own reading is not asked for again once the rest has come."""
    asked = desk.evaluate(
        """() => performance.getEntriesByType('resource').map((e) => new URL(e.name).pathname)
          .filter((path) => path.startsWith('/api/') && !/fonts|preview/.test(path))"""
    )
    assert asked[0] == "/api/first"
    assert not [path for path in asked if path.endswith(("/readings", "/reading", "/session"))]


def test_after_a_refusal_the_connection_ends(page, address):
    """A body that is not taken is not waited for (RFC 9112, §9.3 and §9.6)."""
    site = page.request.get(f"{address}/api/sites").json()[0]["id"]
    cookies = "; ".join(f"{c['name']}={c['value']}" for c in page.context.cookies())
    host, port = address.removeprefix("http://").split(":")
    with socket.create_connection((host, int(port)), timeout=20) as s:
        head = (
            f"POST /api/sites/{site}/originals HTTP/1.1\r\nHost: {host}:{port}\r\n"
            f"Cookie: {cookies}\r\nContent-Type: multipart/form-data; boundary=x\r\n"
            f"Content-Length: {900_000_000}\r\n\r\n--x\r\n"
        )
        s.sendall(head.encode() + b"a" * 5000)
        answer = b""
        while part := s.recv(65536):  # until the other side ends
            answer += part
    assert answer.startswith(b"HTTP/1.1 413")
    assert re.search(rb"(?im)^connection: close\r$", answer)
    assert answer.count(b"HTTP/1.1") == 1


def test_a_start_waits_while_another_sets_up():
    """Two would install into one folder, and one take away what the other has begun."""
    root = Path(__file__).resolve().parents[1]
    env = {k: v for k, v in os.environ.items() if not k.startswith("SKYPANE_")}
    with (root / "var" / "setup.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        begun = subprocess.Popen(
            [root / "run", "setup"],
            env=env,
            stderr=subprocess.PIPE,
            stdout=subprocess.PIPE,
            text=True,
        )
        said = begun.stderr.readline()
        assert "another ./run is setting up" in said
        with pytest.raises(subprocess.TimeoutExpired):
            begun.wait(1)
    # as soon as the other is done it goes on
    begun.communicate(timeout=300)
    assert begun.returncode == 0
