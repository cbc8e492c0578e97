"""Turns go round people: nobody's heavy work keeps everybody waiting."""

import threading
import time
from contextlib import ExitStack

import pytest
from skypane.errors import Busy
from skypane.pixels.turns import CROWDED_SECONDS, Turns


class Crew:
    """People who ask for turns in threads of their own and work until they are told to stop."""

    def __init__(self, turns):
        self.turns, self.began, self.ends, self.threads = turns, [], {}, []

    def ask(self, who, job):
        self.ends[job] = threading.Event()

        def work():
            with self.turns.turn(who, 30):
                self.began.append(job)
                self.ends[job].wait(30)

        thread = threading.Thread(target=work)
        thread.start()
        self.threads.append(thread)
        time.sleep(0.02)  # so that the order of asking is certain

    def end(self, job):
        self.ends[job].set()
        time.sleep(0.05)

    def go_home(self):
        for event in self.ends.values():
            event.set()
        for thread in self.threads:
            thread.join(30)


@pytest.fixture
def crew():
    made = []

    def of(at_once):
        made.append(Crew(Turns(at_once)))
        return made[-1]

    yield of
    for c in made:
        c.go_home()


def test_one_person_leaves_a_turn_to_others(crew):
    two = crew(2)
    for n in range(3):
        two.ask("ann", f"a{n}")
    assert two.began == ["a0"]
    two.ask("ben", "b0")
    assert two.began == ["a0", "b0"]
    two.end("b0")
    assert two.began == ["a0", "b0"]  # still: only ann waits, and ann has hers
    two.end("a0")
    assert two.began == ["a0", "b0", "a1"]


def test_turns_go_round(crew):
    one = crew(1)
    for job in ("a0", "a1", "a2"):
        one.ask("ann", job)
    one.ask("ben", "b0")
    one.ask("cat", "c0")
    for _ in range(4):
        one.end(one.began[-1])
    assert one.began == ["a0", "b0", "c0", "a1", "a2"]


def test_nobody_in_particular_may_hold_all(crew):
    two = crew(2)
    two.ask(None, "first")
    two.ask(None, "second")
    assert two.began == ["first", "second"]


def test_whoever_waits_too_long_is_told_and_leaves_the_queue(crew):
    one = crew(1)
    one.ask("ann", "a0")
    with pytest.raises(Busy, match="Many pictures"), one.turns.turn("ben", 0.05):
        pass
    one.end("a0")
    with one.turns.turn("cat", 0.05):  # ben is not waited for
        pass


def test_a_crowd_of_ones_own_is_told_soon(crew):
    one = crew(1)
    for n in range(3):
        one.ask("ann", f"a{n}")
    began = time.monotonic()
    with pytest.raises(Busy, match="your pictures"), one.turns.turn("ann", 60):
        pass
    assert time.monotonic() - began < CROWDED_SECONDS + 5


def test_a_turn_comes_back_after_an_error():
    turns = Turns(1)
    for _ in range(3):
        with ExitStack() as stack:
            stack.enter_context(pytest.raises(ZeroDivisionError))
            stack.enter_context(turns.turn("ann", 1))
            raise ZeroDivisionError


def test_whom_nobody_asks_about_is_forgotten():
    turns = Turns(2)
    for who in range(2500):
        with turns.turn(who, 1):
            pass
    assert len(turns._served) <= 1001
    assert not turns._holds
