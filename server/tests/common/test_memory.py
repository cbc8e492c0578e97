"""What a process no longer needs goes back to the machine."""

import gc
import weakref

import pytest
from common import memory


@pytest.fixture(autouse=True)
def anew(monkeypatch):
    monkeypatch.setattr(memory, "_next", 0.0)
    monkeypatch.setattr(memory, "_after", 0)


def test_what_is_free_is_given_back(monkeypatch):
    monkeypatch.setattr(memory, "FROM_BYTES", 0)
    blocks = [bytes(100_000) for _ in range(1500)]  # below what the C library maps by itself
    last = bytes(100_000)
    full = memory.held_bytes()
    del blocks
    assert memory.give_back()
    assert memory.held_bytes() < full - 80_000_000
    assert len(last)  # what is still held above them keeps nothing back


def test_it_is_not_looked_at_all_the_time(monkeypatch):
    monkeypatch.setattr(memory, "FROM_BYTES", 0)
    assert memory.give_back()
    assert not memory.give_back()


def test_a_small_process_keeps_what_it_has(monkeypatch):
    monkeypatch.setattr(memory, "FROM_BYTES", 10**12)
    assert not memory.give_back()


def test_where_much_is_left_what_hangs_on_itself_alone_goes_too(monkeypatch):
    monkeypatch.setattr(memory, "FROM_BYTES", 0)
    monkeypatch.setattr(memory, "FULL_BYTES", 0)

    class Ring:
        pass

    ring = Ring()
    ring.self = ring
    gone = weakref.ref(ring)
    gc.disable()
    try:
        del ring
        assert gone() is not None
        memory.give_back()
        assert gone() is None
    finally:
        gc.enable()


def test_that_takes_a_small_share_of_the_time(monkeypatch):
    """A large process that stays large is not looked through again and again."""
    monkeypatch.setattr(memory, "FROM_BYTES", 0)
    monkeypatch.setattr(memory, "FULL_BYTES", 0)
    looked = []

    def collect():
        looked.append(memory.time.monotonic())
        memory.time.sleep(0.2)
        return 1

    monkeypatch.setattr(memory.gc, "collect", collect)
    began = memory.time.monotonic()
    assert memory.give_back()
    assert memory._next >= began + 0.2 / memory.MOST_SHARE
    memory._next = 0.0
    memory.give_back()
    assert len(looked) == 1  # it has not grown
