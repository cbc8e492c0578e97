"""Services and workers killed for real while the product is at work. Run after the other browser
tests, since it disturbs them."""

from __future__ import annotations

import io
import os
import signal
import time
from collections.abc import Iterator
from pathlib import Path

import numpy as np
import pytest
from making import Maker
from PIL import Image
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.skipif(
    os.environ.get("SKYPANE_FAULTS") != "1", reason="run by itself, at the end of ./run test"
)


@pytest.fixture
def maker(page: Page, address: str) -> Iterator[Maker]:
    made = Maker(page, address)
    yield made
    made.remove_sites()


def pids(*words: str) -> list[int]:
    """Our own processes of a kind: their command line has these words and does not come from a
    shell that keeps them alive."""
    found = []
    for folder in Path("/proc").glob("[0-9]*"):
        try:
            line = (folder / "cmdline").read_bytes().decode(errors="replace").split("\0")
            ours = f"SKYPANE_VAR={os.environ['SKYPANE_VAR']}".encode() in (
                folder / "environ"
            ).read_bytes().split(b"\0")
        except OSError:
            continue
        if (
            ours
            and line[0] != "bash"
            and line[0] != "setsid"
            and all(any(w in part for part in line) for w in words)
        ):
            found.append(int(folder.name))
    return found


def kill(*words: str, with_signal: int = signal.SIGKILL) -> None:
    for pid in pids(*words):
        os.kill(pid, with_signal)


def grain(seed: int) -> bytes:
    """A grainy picture whose every file takes its time, on a fast machine too: a run of it is not
    over before anything has been killed."""
    fine = np.random.default_rng(seed).normal(0, 14, (2800, 4200, 1))
    slope = np.linspace(60, 190, 4200)[None, :, None] * np.array([1.0, 0.95, 0.9])
    out = io.BytesIO()
    Image.fromarray(np.clip(slope + fine, 0, 255).astype("uint8")).save(out, "JPEG", quality=85)
    return out.getvalue()


def quay(maker: Maker, seed: int) -> tuple[int, int]:
    site = maker.site(f"Reed Quay {seed}")
    original = maker.original(site, "quay.jpg", grain(seed))
    wide = {"original": original, "height": {"kind": "ratio", "w": 2, "h": 1}}
    return site, maker.placement(
        site, "Quay", {"D": wide, "A": {"height": {"kind": "ratio", "w": 1, "h": 1}}}
    )


def started(maker: Maker, placement: int) -> int:
    """A run that has made some of its files, and not yet all."""
    run = maker.ask("POST", f"/placements/{placement}/deliveries")
    until = time.time() + 60
    while not (told := maker.ask("GET", f"/deliveries/{run['id']}"))["done"]:
        assert time.time() < until, told
        time.sleep(0.1)
    assert told["done"] < told["total"], "over before anything could be killed"
    return run["id"]


def ended(maker: Maker, run: int, seconds: float = 180) -> dict:
    until = time.time() + seconds
    while time.time() < until:
        answer = maker.page.request.get(f"{maker.address}/api/deliveries/{run}")
        if answer.ok and answer.json()["state"] in ("done", "failed", "stopped"):
            return answer.json()
        time.sleep(0.5)
    raise AssertionError(f"not ended within {seconds} s: {answer.text()}")


def test_a_worker_that_is_killed_is_started_again_and_the_run_ends_whole(page: Page, maker: Maker):
    site, placement = quay(maker, 1)
    run = started(maker, placement)
    # silent first, so that the page has something to tell for as long as the test looks
    kill("celery", with_signal=signal.SIGSTOP)
    try:
        page.goto(f"{maker.address}/sites/{site}/placements/{placement}/files")
        expect(page.get_by_text("No worker is running")).to_be_visible(timeout=30_000)
    finally:
        kill("celery")
    done = ended(maker, run)
    assert done["state"] == "done" and done["done"] == done["total"]
    expect(page.get_by_role("link", name="Download zip")).to_be_visible(timeout=15_000)


def test_redis_may_go_and_come(page: Page, maker: Maker):
    _, placement = quay(maker, 2)
    kill("redis-server", with_signal=signal.SIGSTOP)  # there, and silent: worse than gone
    try:
        assert page.request.get(f"{maker.address}/api/sites").ok
        noun = maker.kept(placement)
        body = {"revision": noun["revision"], "placement": {**noun["placement"], "name": "kept"}}
        assert (
            maker.ask("PUT", f"/placements/{placement}", data=body)["placement"]["name"] == "kept"
        )
    finally:
        kill("redis-server", with_signal=signal.SIGCONT)
    kill("redis-server")
    run = maker.ask("POST", f"/placements/{placement}/deliveries")
    assert ended(maker, run["id"])["state"] == "done"


def test_mariadb_may_go_and_come_in_the_middle_of_a_run(page: Page, maker: Maker):
    _, placement = quay(maker, 3)
    run = started(maker, placement)
    kill("mariadbd")
    statuses = set()
    until = time.time() + 60
    while time.time() < until:
        answer = page.request.get(f"{maker.address}/api/sites")
        statuses.add(answer.status)
        if not answer.ok:
            assert answer.headers["content-type"] == "application/problem+json"
        elif time.time() > until - 57:
            break
        time.sleep(0.1)
    assert statuses <= {200, 503}
    done = ended(maker, run)
    assert done["state"] == "done" and done["done"] == done["total"]
