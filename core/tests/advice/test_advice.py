"""Fates of keep areas and the walk of advice (rules §4, §5), against exhaustive search on small
cases."""

import math

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from marked import SITE, original, plan_of
from planned import read_part
from skypane.advice.costs import aim_costs
from skypane.advice.crops import largest_crop
from skypane.advice.percents import by_percents, percent_interval, shares
from skypane.advice.reshaping import ratio_bounds
from skypane.advice.trial import tried
from skypane.advice.walk import advise
from skypane.errors import InvalidPlan
from skypane.geometry import Rect
from skypane.model import (
    Area,
    FixedAim,
    FixedHeight,
    Following,
    RatioHeight,
    Site,
    Treatment,
    ViewportHeight,
    picture,
)
from skypane.shown.fit import Interval, Picture, picture_of, windows
from skypane.shown.keeps import all_whole, failing, fates, summary
from skypane.treatments import WHOLE

# -- fates --


def test_check_value_a_wide_area_fails_below_809():
    # keep 0.045…0.955 of 16:9 in a 500 px high frame (rules §4); half an image px of tolerance
    # allows 808
    p = plan_of(
        original((0.045, 0.955, 0.2, 0.8)),
        Site(narrowest=700, widest=1000, breakpoints=()),
        height=FixedHeight(height_px=500),
    )
    found, _ = fates(p, p.original.keeps[0])
    assert 808 <= p.viewport_w[found == "whole"].min() <= 809
    assert summary(p, p.original.keeps[0]).first_failing == 700


def test_lost_is_less_than_half_and_cut_the_rest():
    left = original((0.0, 0.3, 0.4, 0.6))
    p = plan_of(left, height=RatioHeight(w=3, h=4), aim=FixedAim(x=0.5, y=0.5))  # shows 0.289…0.711
    found, share = fates(p, left.keeps[0])
    assert set(found) == {"lost"} and share[0] == pytest.approx((0.3 - 0.28906) / 0.3, abs=1e-3)
    p = plan_of(
        original((0.2, 0.5, 0.4, 0.6)), height=RatioHeight(w=3, h=4), aim=FixedAim(x=0.5, y=0.5)
    )
    assert set(fates(p, p.original.keeps[0])[0]) == {"cut"}


def test_small_is_whole_but_narrower_than_asked():
    face = Area(name="Face", rect=Rect(x=0.4, y=0.4, w=0.1, h=0.1), least_px=50)
    p = plan_of(original(face), height=RatioHeight(w=16, h=9))
    found, _ = fates(p, face)  # a tenth of the frame's width: 32 px at 320, 50 px at 500
    assert found[0] == "small" and p.viewport_w[found == "whole"].min() == pytest.approx(500, abs=6)


def test_which_height_fails_is_told():
    site = Site(narrowest=400, widest=401, breakpoints=())
    p = plan_of(original((0.1, 0.9, 0.3, 0.7)), site, height=ViewportHeight(percent=100))
    # the tallest screen shows the least of the width
    assert summary(p, p.original.keeps[0]).worst_height == 932


# -- the walk --


def test_nothing_is_advised_where_all_is_whole():
    assert (
        advise(
            plan_of(original((0.4, 0.6, 0.4, 0.6)), height=RatioHeight(w=1, h=1)),
            {},
            SITE.budget_bytes,
        )
        is None
    )


def test_the_four_boats_in_4_5_show_45_percent_and_need_92():
    boats = original(
        (0.493, 0.73, 0.405, 0.885),
        (0.735, 0.984, 0.518, 0.868),
        (0.322, 0.456, 0.69, 0.858),
        (0.06, 0.222, 0.51, 0.895),
        size=(5200, 2900),
        focal=(0.6, 0.72),
    )
    p = plan_of(
        boats, Site(narrowest=320, widest=599, breakpoints=()), height=RatioHeight(w=4, h=5)
    )
    found = advise(p, {1: boats}, SITE.budget_bytes)
    kinds = {s.kind: s for s in found.steps}
    assert (
        not kinds["aim"].works
        and kinds["aim"].why == "45 % of the width shows at 320 px, K0, K1, K2 and K3 need 92 %."
    )
    assert found.steps[found.best].kind == "whole" and "320 × 178" in kinds["whole"].why
    assert kinds["ratio"].figures["ratio"] == pytest.approx(0.924 * 5200 / 2900, abs=0.001)


def test_aim_comes_first_where_a_position_serves():
    o = original((0.7, 0.8, 0.4, 0.6))
    p = plan_of(o, height=RatioHeight(w=3, h=4), aim=FixedAim(x=0, y=0.5))
    found = advise(p, {1: o}, SITE.budget_bytes)
    assert found.best == 0 and found.steps[0].treatment.aim.kind == "following"


def test_a_least_height_stands_against_showing_it_whole():
    o = original((0.05, 0.95, 0.4, 0.6))
    p = plan_of(o, height=RatioHeight(w=1, h=1, least_px=300))
    found = advise(p, {1: o}, SITE.budget_bytes)
    whole = next(s for s in found.steps if s.kind == "whole")
    assert "320 × 180 at 320 px, flatter than the least height of 300 px" in whole.why
    # the natural ratio is refused, not the whole picture: it fits into the frame that is there
    assert (
        whole.works
        and whole.treatment == Treatment(fit="contain")
        and "with its colour beside it" in whole.why
    )
    assert whole.label == "Show it whole in this frame"


def test_another_original_is_proposed_when_it_would_be_whole():
    wide, tall = (
        original((0.05, 0.95, 0.4, 0.6)),
        original((0.3, 0.7, 0.3, 0.7), size=(1200, 1600), id=2),
    )
    never = original((0.0, 1.0, 0.4, 0.6), id=3)
    p = plan_of(wide, height=RatioHeight(w=3, h=4, least_px=400))
    found = advise(p, {1: wide, 2: tall, 3: never}, SITE.budget_bytes)
    proposed = [s for s in found.steps if s.kind == "original"]
    assert [s.treatment.original for s in proposed] == [2] and proposed[0].works


rects = (
    st.tuples(st.floats(0, 0.9), st.floats(0.02, 1), st.floats(0, 0.9), st.floats(0.02, 1))
    .map(
        lambda t: (
            t[0],
            min(1.0, t[0] + t[1] * (1 - t[0])),
            t[2],
            min(1.0, t[2] + t[3] * (1 - t[2])),
        )
    )
    .filter(lambda r: r[1] - r[0] > 0.01 and r[3] - r[2] > 0.01)
)


@settings(max_examples=60, deadline=None)
@given(
    st.lists(rects, min_size=1, max_size=4),
    st.floats(0.4, 3),
    st.sampled_from([(1600, 900), (900, 1600), (1000, 1000)]),
)
def test_whatever_is_advised_works_and_what_is_refused_does_not(areas, ratio, size):
    o = original(*areas, size=size)
    p = plan_of(o, height=RatioHeight(w=ratio, h=1))
    found = advise(p, {1: o}, SITE.budget_bytes)
    if found is None:
        return
    for step in found.steps:
        if step.works:
            if step.treatment.show == "colour":
                continue  # nothing is cut where no picture is
            q = tried(p, step.treatment)
            assert all_whole(q.shown, q.keeps, Picture(*size)), step.kind
            assert q.keeps == o.keeps or step.kind == "colour"  # only a stand-in lets areas go
    assert found.best is not None  # showing it whole is always there


@given(st.lists(rects, min_size=1, max_size=4), st.floats(0.3, 4))
def test_the_bounds_of_the_ratio_against_trying_every_position(areas, ratio):
    """Exhaustive: 400 positions on each axis; some position keeps all whole iff the ratio lies
    within the bounds."""
    o = original(*areas)
    low, high = ratio_bounds(16 / 9, o.keeps)
    sx, sy = min(1.0, ratio / (16 / 9)), min(1.0, (16 / 9) / ratio)
    assume(abs(ratio - low) > 0.02 and abs(ratio - high) > 0.02)

    def some_position(share, first, last):
        starts = np.linspace(0, 1 - share, 4001)
        return ((starts <= first + 1e-3) & (starts + share >= last - 1e-3)).any()

    possible = some_position(
        sx, min(a[0] for a in areas), max(a[1] for a in areas)
    ) and some_position(sy, min(a[2] for a in areas), max(a[3] for a in areas))
    if low <= ratio <= high:
        assert possible
    elif min(abs(ratio - low), abs(ratio - high)) > 0.05:
        tight = some_position(sx, min(a[0] for a in areas) - 2e-3, max(a[1] for a in areas) + 2e-3)
        assert not (tight and possible and sx < 1 and sy < 1)


# -- percentages --

intervals = (
    st.tuples(st.floats(0, 1), st.floats(0, 1))
    .map(sorted)
    .filter(lambda k: k[1] - k[0] > 0.001)
    .map(lambda k: Interval("k", *k))
)


@given(st.floats(0.05, 1), st.lists(intervals, min_size=1, max_size=3))
def test_the_interval_of_percentages_against_trying_them_all(share, keeps):
    low, high = percent_interval(np.array([share]), tuple(keeps))
    for p in np.linspace(0, 1, 201):
        start = p * (1 - share)
        whole = all(start <= k.first + 1e-9 and start + share >= k.last - 1e-9 for k in keeps)
        inside = low[0] - 1e-7 <= p <= high[0] + 1e-7
        assert whole == inside or min(abs(p - low[0]), abs(p - high[0])) < 1e-6


@given(
    st.lists(st.floats(0.05, 1), min_size=1, max_size=7),
    st.lists(intervals, min_size=1, max_size=3),
)
def test_where_each_width_has_a_percentage_one_serves_them_all(widths, keeps):
    """The intervals of growing shares lie inside one another: whatever serves the smallest serves
    every one."""
    low, high = percent_interval(np.array(widths), tuple(keeps))
    served = low <= high
    if served.any():
        assert low[served].max() <= high[served].min() + 1e-9


# -- crops --


@given(st.floats(0.3, 3), st.lists(rects, max_size=3), st.tuples(st.floats(0, 1), st.floats(0, 1)))
def test_the_largest_crop_against_a_search_of_all(ratio, areas, focal):
    picture = Picture(1600, 900, focal)
    o = original(*areas)
    w, h = min(1, ratio / (16 / 9)), min(1, (16 / 9) / ratio)
    x0, x1 = (min(a[0] for a in areas), max(a[1] for a in areas)) if areas else (0.5, 0.5)
    y0, y1 = (min(a[2] for a in areas), max(a[3] for a in areas)) if areas else (0.5, 0.5)
    if x1 - x0 > w + 1e-9 or y1 - y0 > h + 1e-9:
        with pytest.raises(InvalidPlan, match=r"needs? "):
            largest_crop(picture, ratio, o.keeps)
        return
    crop = largest_crop(picture, ratio, o.keeps)
    # no larger rectangle of this ratio exists
    assert (crop.w, crop.h) == (
        pytest.approx(w),
        pytest.approx(h),
    )
    assert crop.w * 1600 / (crop.h * 900) == pytest.approx(ratio)
    assert crop.x >= -1e-9 and crop.x + crop.w <= 1 + 1e-9
    if areas:
        assert (
            crop.x <= x0 + 1e-9
            and crop.x + crop.w >= x1 - 1e-9
            and crop.y <= y0 + 1e-9
            and crop.y + crop.h >= y1 - 1e-9
        )
    starts = [s for s in np.linspace(0, 1 - w, 300) if not areas or (s <= x0 and s + w >= x1)]
    if starts:
        assert (
            abs(crop.x + w / 2 - focal[0]) <= min(abs(s + w / 2 - focal[0]) for s in starts) + 1e-9
        )


# -- small areas, colour, and what is left alone --


def face(least, x=0.45, w=0.1):
    return Area(name="Face", rect=Rect(x=x, y=0.4, w=w, h=0.2), least_px=least)


def test_a_small_area_is_helped_by_a_crop_just_tight_enough():
    """A tenth of a 16:9 picture at 320 px is 32 px; 64 asked for needs half the picture: W·w/share
    = 320·0.1/0.5."""
    o = original(face(64), size=(4000, 2250))
    found = advise(plan_of(o, height=RatioHeight(w=16, h=9)), {1: o}, SITE.budget_bytes)
    assert [s.kind for s in found.steps[:3]] == ["aim", "crop", "taller"]
    crop = found.steps[found.best]
    assert crop.kind == "crop" and crop.treatment.crop.w == pytest.approx(0.5, abs=1e-4)
    assert found.steps[0].why == "Face is shown 32 px wide, 64 px are asked for."
    # 700 px needed at 1x
    assert "50 % of the width (2000 px), shows them large enough and is sharp at 2x" in crop.why


def test_a_crop_that_would_be_soft_is_refused_with_its_px():
    o = original(face(64), size=(1000, 562))
    found = advise(plan_of(o, height=RatioHeight(w=16, h=9)), {1: o}, SITE.budget_bytes)
    assert (
        "soft: 500 px wide where 700 are needed"
        in next(s for s in found.steps if s.kind == "crop").why
    )
    assert found.steps[found.best].kind == "taller"


def test_a_crop_that_leaves_no_room_for_the_others_is_refused():
    o = original(face(64), (0.0, 0.1, 0.4, 0.6), (0.9, 1.0, 0.4, 0.6), size=(4000, 2250))
    found = advise(plan_of(o, height=RatioHeight(w=16, h=9)), {1: o}, SITE.budget_bytes)
    crop = next(s for s in found.steps if s.kind == "crop")
    assert not crop.works and "50 % of the width; Face, K1 and K2 need 100 %" in crop.why


def test_a_taller_frame_draws_the_picture_larger():
    """A picture that covers a frame of height H is drawn H·w/h wide: 0.1·H·1000/562 ≥ 64 asks for H
    ≥ 359.68, twice the 180."""
    o = original(face(64), size=(1000, 562))
    step = next(
        s
        for s in advise(plan_of(o, height=RatioHeight(w=16, h=9)), {1: o}, SITE.budget_bytes).steps
        if s.kind == "taller"
    )
    assert step.works and step.figures["least_height"] == 360 and step.figures["times"] == 2
    assert step.treatment.height == RatioHeight(w=16, h=9, least_px=360)
    refused = plan_of(o, height=RatioHeight(w=16, h=9, greatest_px=350))
    step = next(s for s in advise(refused, {1: o}, SITE.budget_bytes).steps if s.kind == "taller")
    assert not step.works and "360 px high; the greatest height that is set is 350 px" in step.why


def test_without_the_crop_comes_early_where_the_crop_is_what_cuts():
    o = original((0.1, 0.2, 0.4, 0.6), (0.5, 0.6, 0.4, 0.6))
    p = plan_of(o, height=RatioHeight(w=16, h=9), crop=Rect(x=0.3, y=0.3, w=0.5, h=0.5))
    found = advise(p, {1: o}, SITE.budget_bytes)
    assert (
        found.steps[0].why.startswith("The crop leaves out all of K0")
        and found.steps[found.best].kind == "uncrop"
    )


def test_where_the_crop_must_go_first_the_next_steps_take_it_away():
    """K0 lies outside the crop, and the frame is too narrow for both even without it: the crop goes
    with the new ratio."""
    o = original((0.1, 0.2, 0.4, 0.6), (0.8, 0.9, 0.4, 0.6))
    p = plan_of(o, height=RatioHeight(w=1, h=1), crop=Rect(x=0.4, y=0.3, w=0.5, h=0.5))
    by_kind = {s.kind: s for s in advise(p, {1: o}, SITE.budget_bytes).steps}
    assert not by_kind["uncrop"].works
    for kind in ("whole", "ratio"):
        step = by_kind[kind]
        assert step.works and step.treatment.crop == WHOLE and ", without the crop" in step.why
        q = tried(p, step.treatment)
        assert not failing(q)
    # 80 % of a 16:9 picture: 1.4222:1
    assert by_kind["ratio"].figures["ratio"] == pytest.approx(0.8 * 16 / 9, abs=0.001)


def test_a_colour_always_helps_and_a_stand_in_where_it_is_sharp():
    o = original((0.0, 0.2, 0.4, 0.6), (0.8, 1.0, 0.4, 0.6))
    p = plan_of(o, height=RatioHeight(w=1, h=2, least_px=400))
    colour = [s for s in advise(p, {1: o}, SITE.budget_bytes).steps if s.kind == "colour"]
    assert [s.label for s in colour] == [
        "Only the colour",
        "Only K0, small, below the least height of 400 px",
    ]
    stand_in = tried(p, colour[1].treatment)
    assert (stand_in.W.min(), stand_in.H.max(), [a.name for a in stand_in.keeps]) == (
        96,
        96,
        ["K0"],
    )


def test_originals_are_ranked_by_sharpness_then_by_bytes():
    wide = original((0.0, 1.0, 0.4, 0.6))
    others = {
        i: original((0.4, 0.6, 0.4, 0.6), size=size, id=i, size_bytes=weight)
        for i, (size, weight) in enumerate(
            [((900, 1600), 10_000), ((2000, 3000), 9_000_000), ((2000, 3000), 900_000)], 2
        )
    }
    p = plan_of(wide, height=RatioHeight(w=3, h=4, least_px=400))
    steps = [
        s for s in advise(p, {1: wide, **others}, SITE.budget_bytes).steps if s.kind == "original"
    ]
    assert [s.treatment.original for s in steps] == [4, 3, 2]
    assert "over the budget" in steps[1].why and "0.64× sharp at 2x" in steps[2].why


# -- percentages on both axes at once --


@settings(max_examples=80, deadline=None)
@given(
    st.lists(rects, min_size=1, max_size=3),
    st.integers(250, 900),
    st.tuples(st.floats(0.1, 0.9), st.floats(0.1, 0.9)),
)
def test_percentages_of_both_axes_against_trying_every_split(areas, height, focal):
    """Exhaustive: a part of a span will do if one pair serves it, or if no pair serves any width of
    it; fewest parts by dynamic programming over every way of cutting."""
    site = Site(narrowest=330, widest=360, breakpoints=())
    o = original(*areas, focal=focal)
    p = plan_of(o, site, height=FixedHeight(height_px=height))
    found = by_percents(p)
    picture = picture_of(o, Following())
    bounds = [
        percent_interval(s[0], k)
        for s, k in zip(
            shares(windows(picture, "cover", FixedAim(), p.W, p.H)),
            (picture.keeps_x, picture.keeps_y),
            strict=True,
        )
    ]
    n = len(p.viewport_w)
    alone = [all(low[i] <= high[i] + 1e-12 for low, high in bounds) for i in range(n)]

    def will_do(a, b):
        return not any(alone[a:b]) or all(
            low[a:b].max() <= high[a:b].min() + 1e-12 for low, high in bounds
        )

    fewest = [0] + [math.inf] * n
    for b in range(1, n + 1):
        fewest[b] = min((fewest[a] + 1 for a in range(b) if will_do(a, b)), default=math.inf)
    assert len(found.breakpoints) == fewest[n] - 1
    assert sum(b - a + 1 for a, b in found.serves) == sum(alone)
    assert found.first_failing == next((330 + i for i in range(n) if not alone[i]), None)
    if any(alone):
        q = tried(p, Treatment(aim=FixedAim(x=found.x, y=found.y)))
        whole = np.all([fates(q, a)[0] == "whole" for a in q.keeps], axis=0)
        assert whole[alone].all()
    else:
        assert found.x is None and found.y is None


def test_a_post_parts_what_percentages_serve_from_what_none_does():
    """A 16:9 picture in frames 400 px high, all of 0.2 … 0.9 to be kept: 0.7 of 711.1 px, so
    nothing serves below 497.8 px."""
    o = original((0.2, 0.9, 0.4, 0.6))
    found = by_percents(plan_of(o, height=FixedHeight(height_px=400)))
    assert (found.serves, found.breakpoints, found.first_failing) == (((498, 700),), (497,), 320)
    shown = 498 / (400 * 16 / 9)
    assert (0.9 - shown) / (1 - shown) - 1e-5 <= found.x <= 0.2 / (1 - shown) + 1e-5


def test_the_percentage_nearest_to_the_focal_one_is_taken():
    # a frame half as wide as the picture: with the focal point in the middle 50 % is wanted, and
    # allowed
    middle = original((0.4, 0.6, 0.4, 0.6))
    left = original((0.4, 0.6, 0.4, 0.6), focal=(0.0, 0.5))
    assert by_percents(plan_of(middle, height=RatioHeight(w=8, h=9))).x == 0.5
    # focal at the left edge wants 0 %, the area needs a start of at least 0.1 of 0.5
    assert by_percents(plan_of(left, height=RatioHeight(w=8, h=9))).x == pytest.approx(0.2)


def test_each_way_to_aim_says_what_it_costs():
    o = original((0.6, 0.8, 0.4, 0.6), focal=(0.2, 0.5))
    costs = aim_costs(plan_of(o, height=RatioHeight(w=3, h=4)))
    assert [(c.whole_widths, c.widths) for c in costs] == [(381, 381), (0, 381), (381, 381)]
    assert costs[1].worst_area == "K0" and costs[1].worst_share == 0 and costs[0].worst_area is None
    assert costs[2].aim.kind == "fixed" and costs[2].css == f"{costs[2].aim.x * 100:g}% 50%"


def test_what_holds_the_picture_is_told_with_its_widths():
    """A 400 px high frame of a 16:9 picture: the area's right edge leaves the window of the focal
    point below 640 px."""
    o = original((0.7, 0.9, 0.4, 0.6), focal=(0.5, 0.5))
    site = Site(narrowest=400, widest=800, breakpoints=())
    reading = read_part(
        site,
        picture(
            name="x", treatments={"A": Treatment(original=1, height=FixedHeight(height_px=400))}
        ),
        {1: o},
    )
    ((name, first, last),) = [(h.name, h.first, h.last) for h in reading.spans[0].holds]
    # centred on 0.5 the window ends at 0.5 + W/2D = 0.9 where W = 0.8·D = 0.8·711.1
    assert (name, first) == ("K0", 400) and last == pytest.approx(0.8 * 400 * 16 / 9, abs=2)
