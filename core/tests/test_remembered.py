"""What is remembered is bounded by what it weighs."""

import threading

from hypothesis import given
from hypothesis import strategies as st
from skypane.remembered import Remembered
from skypane.values import once


def test_those_not_asked_for_the_longest_go_first():
    kept = Remembered[str, int](10, lambda value: value)
    for key, weight in (("a", 4), ("b", 4)):
        kept.keep(key, weight)
    assert kept.get("a") == 4
    kept.keep("c", 4)
    assert kept.get("b") is None
    assert kept.latest_first() == [4, 4]
    assert kept.bytes == 8


def test_the_last_stays_whatever_it_weighs():
    kept = Remembered[str, int](10, lambda value: value)
    kept.keep("a", 4)
    kept.keep("b", 99)
    assert (kept.get("a"), kept.get("b")) == (None, 99)
    kept.keep("c", 1)
    assert (kept.get("b"), kept.get("c")) == (None, 1)


@given(st.lists(st.tuples(st.integers(0, 5), st.integers(0, 8)), max_size=40))
def test_it_never_weighs_more_than_it_may(asked):
    kept = Remembered[int, int](16, lambda value: value)
    for key, weight in asked:
        kept.keep(key, weight)
        assert kept.get(key) == weight
        assert kept.bytes == sum(kept.latest_first()) <= 16


def test_threads_share_it():
    kept = Remembered[int, int](1000, lambda value: value)

    def work(start):
        for n in range(500):
            kept.keep(start + n % 50, 7)
            kept.get(start + (n * 3) % 50)

    threads = [threading.Thread(target=work, args=(i * 10,)) for i in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert kept.bytes == sum(kept.latest_first()) <= 1000


class Of:
    """What something is worked out of."""


def test_values_by_name_are_told_apart_as_those_by_place_are():
    asked = []

    @once
    def work(of, k=0, *, more=0):
        asked.append((k, more))
        return k, more

    of = Of()
    assert (work(of, k=1), work(of, k=2), work(of, 1, more=3)) == ((1, 0), (2, 0), (1, 3))
    assert (work(of, k=1), work(of, more=3, k=1)) == ((1, 0), (1, 3))
    assert asked == [(1, 0), (2, 0), (1, 3), (1, 3)]
    assert work(Of(), k=1) == (1, 0) and len(asked) == 5
