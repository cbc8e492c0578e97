"""Many pictures in one spot, against brute force, exhaustive search and the trade's check values
(common practice, as rules §2 and §12 quote them)."""

from itertools import pairwise, product

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from skypane.galleries.columns import equal_cells, in_a_row, stated_cells, two_wide_ratio
from skypane.galleries.justified import broken_into_rows, row_height
from skypane.galleries.logo import Cut, least_width, never_shown, readable_from, shown_cut
from skypane.galleries.masonry import put_into_columns
from skypane.galleries.ratio import Item, common_ratio, losses

#: Of cameras, phones, panoramas and screenshots.
RATIOS = st.sampled_from([1.5, 2 / 3, 4 / 3, 0.75, 16 / 9, 9 / 16, 1.0, 3.0, 20.0, 0.05, 1.25])


def one(value: float) -> np.ndarray:
    return np.array([float(value)])


# -- columns -------------------------------------------------------------------------------


@pytest.mark.parametrize(("n", "width"), [(1, 1080), (2, 510), (3, 320), (4, 225)])
def test_columns_of_a_container_of_1080_with_a_gutter_of_60(n, width):
    assert equal_cells(one(1080), n, 60, 0).cell == pytest.approx([width])


def test_padding_is_inside_of_the_cell():
    found = equal_cells(one(1000), 4, 20, 12)
    assert (found.cell[0], found.frame[0]) == (235, 211)


@pytest.mark.parametrize(
    ("n", "percent", "padding", "box", "together", "wraps"),
    [
        (3, 33.3, 1, "content-box", 105.9, True),  # the padding that nobody counted
        (3, 33.3, 1, "border-box", 99.9, False),
        (3, 31.33, 1, "content-box", 99.99, False),
        (2, 48, 1, "content-box", 100, False),
        (4, 23, 1, "content-box", 100, False),
        (6, 16.6667, 0, "border-box", 100.0002, False),  # cut to 1/64 px it fits
    ],
)
def test_shares_with_padding(n, percent, padding, box, together, wraps):
    holder = np.array([320.0, 767.0, 1080.0, 1440.0])
    found = stated_cells(holder, n, percent, 0, 0, padding, box)
    assert found.row / holder * 100 == pytest.approx(together)
    assert ((in_a_row(holder, found.cell, 0) < n) == wraps).all()


def test_columns_that_are_too_narrow_let_one_more_in():
    holder = one(1000)
    found = stated_cells(holder, 3, 24, 0, 0, 0, "border-box")
    assert in_a_row(holder, found.cell, 0) == 4


def test_the_largest_picture_is_needed_on_the_narrow_side():
    """100 % to 600, 48 % to 1024, 31.33 % above: 600 px at 600, 451 at 1440."""

    def frame(v: int) -> float:
        percent = 100 if v <= 600 else 48 if v <= 1024 else 31.33
        n = {100: 1, 48: 2, 31.33: 3}[percent]
        return float(stated_cells(one(v), n, percent, 0, 0, 0, "border-box").frame[0])

    widths = range(320, 1441)
    assert max(widths, key=frame) == 600 and frame(600) == 600
    assert round(frame(1440)) == 451 and round(frame(1024)) == 492


def test_two_columns_wide_it_is_as_high_as_its_row():
    assert two_wide_ratio(320, 60, 1.5) == pytest.approx(700 / (320 / 1.5))


# -- one ratio -----------------------------------------------------------------------------


def tried_everywhere(items: list[Item]) -> tuple[int, float]:
    """The fewest cut items over a fine net of ratios and all bounds, and the least loss there."""
    a = np.array([i.ratio for i in items])
    net = np.concatenate(
        [np.geomspace(0.04, 25, 20001), a, *[[i.least, i.greatest] for i in items]]
    )
    net = net[np.isfinite(net) & (net > 0)]
    cuts = sum((net < i.least - 1e-9) | (net > i.greatest + 1e-9) for i in items)
    few = net[cuts == np.min(cuts)]
    return int(np.min(cuts)), min(float(losses(r, a).mean()) for r in few)


@pytest.mark.slow
@given(st.lists(st.tuples(RATIOS, st.floats(0, 1), st.floats(0, 1)), min_size=1, max_size=7))
def test_no_other_ratio_loses_less(given_items):
    items = [Item(*i) for i in given_items]
    found = common_ratio(items)
    fewest, least = tried_everywhere(items)
    assert len(found.cuts) == fewest
    assert found.loss <= least + 1e-9


def test_nothing_has_no_ratio_and_one_has_its_own():
    assert common_ratio([]) is None
    assert common_ratio([Item(1.5)]) == (1.5, 0.0, ())


def test_who_is_cut_is_told_where_no_ratio_holds_all():
    pole, panorama, square = Item(0.5, 0.1, 1.0), Item(3.0, 1.0, 0.2), Item(1.0, 0.5, 0.5)
    found = common_ratio([pole, panorama, square])
    # a pole that needs all its height, a panorama that needs all its width: never both
    assert found.cuts in ((0,), (1,))


# -- rows ----------------------------------------------------------------------------------


def cost_of(rows: list[tuple[int, int]], ratios, holder, gutter, target) -> float:
    total = 0.0
    for i, (first, last) in enumerate(rows):
        room = holder - (last - first - 1) * gutter
        if room <= 0 and last - first > 1:
            return np.inf
        height = max(room, 1e-9) / ratios[first:last].sum()
        if i == len(rows) - 1 and height > target:
            continue
        total += np.log(height / target) ** 2
    return total


def all_ways(n: int) -> list[list[tuple[int, int]]]:
    out = []
    for breaks in product((False, True), repeat=n - 1):
        at = [0, *(i + 1 for i, b in enumerate(breaks) if b), n]
        out.append(list(pairwise(at)))
    return out


@given(
    st.lists(RATIOS, min_size=1, max_size=8),
    st.sampled_from([280.0, 600.0, 1080.0]),
    st.sampled_from([0.0, 8.0, 60.0]),
    st.sampled_from([90.0, 200.0, 480.0]),
)
def test_no_other_breaks_make_rows_more_even(ratios, holder, gutter, target):
    a = np.array(ratios)
    found = broken_into_rows(a, holder, gutter, target)
    mine = [(r.first, r.last) for r in found]
    assert mine[0][0] == 0 and mine[-1][1] == len(a)
    assert all(x[1] == y[0] for x, y in pairwise(mine))
    costs = [(cost_of(way, a, holder, gutter, target), len(way)) for way in all_ways(len(a))]
    least = min(c for c, _ in costs)
    assert cost_of(mine, a, holder, gutter, target) == pytest.approx(least, abs=1e-9)
    assert len(mine) == min(k for c, k in costs if c <= least + 1e-11)


def test_a_row_is_filled_and_the_last_one_is_no_higher_than_wanted():
    ratios = np.array([1.5, 1.5, 1.5, 1.5, 0.75])
    rows = broken_into_rows(ratios, 1000, 10, 220)
    assert [(r.first, r.last, r.filled) for r in rows] == [(0, 3, True), (3, 5, False)]
    assert row_height(1000.0, ratios[:3], 10) == pytest.approx(980 / 4.5)


def test_two_thousand_items_are_broken_too():
    ratios = np.random.default_rng(3).choice([1.5, 0.667, 1.333, 1.778], 2000)
    rows = broken_into_rows(ratios, 1200, 8, 200)
    heights = [row_height(1200.0, ratios[r.first : r.last], 8) for r in rows if r.filled]
    assert 150 < min(heights) and max(heights) < 260


# -- masonry -------------------------------------------------------------------------------


@given(st.lists(RATIOS, min_size=1, max_size=30), st.integers(1, 5))
def test_the_next_item_goes_to_the_least_high_column(ratios, n):
    found = put_into_columns(np.array(ratios), n, 200, 16, np.full(len(ratios), 30.0))
    high = [0.0] * n
    for put, ratio in zip(found, ratios, strict=True):
        assert high[put.column] <= min(high) + 1e-6
        assert all(
            h > high[put.column] + 1e-12 for h in high[: put.column] if h != high[put.column]
        )
        top = put.above * 200 + put.items * 16 + put.above_px
        assert top == pytest.approx(high[put.column])
        high[put.column] += 200 / ratio + 30 + 16


# -- a logo --------------------------------------------------------------------------------

CUTS = [Cut(6.0, 0.22), Cut(3.0, 0.3), Cut(1.0, None)]


def test_the_fullest_cut_that_can_be_read_shows():
    # least·w / (lettering·h): 11 · 6 / 0.22 and 11 · 3 / 0.3
    assert [least_width(c) for c in CUTS] == pytest.approx([300, 110, 0])
    assert readable_from(CUTS) == ((2, 0.0), (1, pytest.approx(110)), (0, pytest.approx(300)))
    for width in np.arange(20, 600, 0.5):
        by_breakpoint = max(
            (f for f in readable_from(CUTS) if f[1] <= width + 1e-9), key=lambda f: f[1]
        )
        assert shown_cut(CUTS, [width] * 3, 11) == by_breakpoint[0]


def test_where_none_can_be_read_the_last_shows():
    both = CUTS[:2]
    assert shown_cut(both, [50, 50], 11) == 1
    assert readable_from(both)[0] == (1, 0.0)


def test_a_cut_without_lettering_hides_all_after_it():
    assert never_shown([CUTS[0], Cut(2.0, None), CUTS[1]]) == (2,)
    assert never_shown(CUTS) == ()
    # a shorter cut that needs more width than the full one never shows
    assert [i for i, _ in readable_from([CUTS[1], CUTS[0], CUTS[2]])] == [2, 0]


def test_what_is_less_than_any_area_asks_for_nothing():
    assert common_ratio([Item(1.5, 1e-308, 1e-308), Item(3.0)]).cuts == ()
