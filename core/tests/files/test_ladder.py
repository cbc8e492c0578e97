"""The widths to export (rules §7): exact against exhaustive search, and what is offered follows
what is drawn."""

import itertools
import re

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from planned import by_density, delivered
from skypane.errors import InvalidPlan
from skypane.files.groups import drawn_widths
from skypane.files.ladder import Bytes, Growth, Need, best, cost, enough, fitted, merged_needs
from skypane.files.renditions import climbed, groups_of, pixel_sizes, renditions, sizes_of
from skypane.geometry import Crop
from skypane.model import (
    ColumnsWidth,
    FixedHeight,
    FixedWidth,
    FullWidth,
    Original,
    PercentColumnsWidth,
    RatioHeight,
    ShareWidth,
    Site,
    Treatment,
    Viewers,
    ViewportHeight,
    picture,
)
from skypane.picks import Environment, pick
from skypane.picks.media import media_matches
from skypane.picks.sizes import evaluate_sizes
from skypane.reading import read
from skypane.shown.nouns import ShownSpan
from skypane.shown.plan import plan
from skypane.widths.lines import straight_lines

BOATS = Original(id=1, name="four-boats.jpg", width_px=5200, height_px=2900, sha256="b", alt="")
SQUARE = Bytes({"any": Growth(c=1, e=2)}, {"any": 1})

needs_ = st.lists(
    st.builds(Need, st.integers(100, 4000), st.floats(0.01, 1)), min_size=1, max_size=7
)


def planned(site, **treatments):
    first = max(treatments)
    held = {**treatments, first: treatments[first].model_copy(update={"original": 1})}
    return plan(site, picture("Boats", held), {1: BOATS})


# worked from the rule (rules §7): needs 400, 800, 1600 at .5, .3, .2 and bytes w²
def test_the_check_values_of_the_rule():
    needs = merged_needs([Need(400, 0.5), Need(800, 0.3), Need(1600, 0.2)], 1600)
    found = best(needs, 6, SQUARE)
    assert [x.widths for x in found] == [(1600,), (800, 1600), (400, 800, 1600)]
    assert [round(x.waste, 5) for x in found] == [2.26531, 0.30612, 0]


@given(needs_, st.integers(100, 4000), st.floats(1, 2.2))
def test_no_other_widths_cost_less(needs, top, e):
    size = Bytes({"any": Growth(e=e)}, {"any": 1})
    merged = merged_needs(needs, top)
    others = [n.px for n in merged[:-1]]
    for found in best(merged, 4, size):
        n = len(found.widths)
        least = min(
            cost((*some, top), merged, size).expected
            for some in itertools.combinations(others, n - 1)
        )
        assert found.expected == pytest.approx(least)
        assert cost(found.widths, merged, size).expected == pytest.approx(found.expected)
        assert found.widths[-1] == top


@given(needs_, st.integers(100, 4000))
def test_waste_falls_to_nothing_and_each_further_file_saves_no_more(needs, top):
    merged = merged_needs(needs, top)
    waste = [x.waste for x in best(merged, 20, SQUARE)]
    saved = -np.diff(waste)
    assert waste[-1] == pytest.approx(0, abs=1e-9)
    assert (saved > 0).all() and (np.diff(saved) <= 1e-9).all()


def test_growth_is_what_the_files_show():
    found = fitted([(w, round(3 * w**1.55)) for w in (400, 800, 1600)])
    assert found.c == pytest.approx(3, rel=0.01) and found.e == pytest.approx(1.55, abs=0.002)
    assert fitted([(400, 9), (400, 9)]) is None


def test_formats_share_a_ladder_by_how_many_take_each():
    one, other = Growth(c=1, e=1), Growth(c=1, e=2)
    size = Bytes({"avif": one, "jpeg": other}, {"avif": 3, "jpeg": 1})
    assert size(np.array([10.0]))[0] == pytest.approx(0.75 * 10 + 0.25 * 100)


def test_the_fewest_widths_within_the_waste_are_taken():
    needs = merged_needs([Need(400, 0.5), Need(800, 0.3), Need(1600, 0.2)], 1600)
    found = best(needs, 6, SQUARE)
    assert len(enough(found, 0.31).widths) == 2
    assert len(enough(found, 0.30).widths) == 3
    assert len(enough(found[:2], 0).widths) == 2


# -- of a placement --


def test_frames_that_change_get_widths_and_those_that_do_not_get_densities():
    p = planned(
        Site(breakpoints=(599,)),
        B=Treatment(width=FixedWidth(width_px=320), height=RatioHeight(w=1, h=1)),
        A=Treatment(width=FullWidth(), height=RatioHeight(w=3, h=2)),
    )
    narrow, wide = (mine for _, mine in renditions(p))
    assert {r.descriptor for r in wide} == {"1x", "2x"}
    assert all(r.density is None and r.descriptor.endswith("w") for r in narrow)


@pytest.mark.parametrize(
    ("lists", "kinds"), [("widths", {True}), ("densities", {False}), ("fitting", {True})]
)
def test_site_or_placement_decide(lists, kinds):
    p = picture("x", {"D": Treatment(original=1)})
    for site, placement in (
        (Site(lists=lists), p),
        (Site(), p.model_copy(update={"lists": lists})),
    ):
        found = groups_of(plan(site, placement, {1: BOATS}))
        assert {g.by_width for g in found} == kinds


def test_spans_of_equal_crop_share_their_widths():
    p = planned(
        Site(),
        D=Treatment(width=ShareWidth(percent=50), height=RatioHeight(w=16, h=9)),
        B=Treatment(width=FullWidth()),
    )
    (group,) = groups_of(p)
    assert group.letters == ("A", "B", "C", "D")
    assert (
        len(
            groups_of(
                planned(by_density(), D=Treatment(), A=Treatment(width=FixedWidth(width_px=300)))
            )
        )
        > 1
    )


def test_a_ladder_holds_its_top_and_nothing_above_it():
    p = planned(Site(densities=(1, 2)), D=Treatment(height=RatioHeight(w=16, h=9)))
    (group,) = groups_of(p)
    assert climbed(group, p).top == 5120 and sizes_of(p, group)[-1].width == 5120
    small = BOATS.model_copy(update={"width_px": 1600, "height_px": 900})
    q = plan(p.site, p.placement, {1: small})
    (group,) = groups_of(q)
    assert sizes_of(q, group)[-1].width == 1600 and sizes_of(q, group)[-1].needed == 5120


def test_own_widths_and_own_numbers_of_files():
    p = planned(Site(), D=Treatment(height=RatioHeight(w=16, h=9)))
    own = p.placement.model_copy(
        update={
            "parts": (
                p.placement.parts[0].model_copy(update={"ladders": {"D": (900, 1800, 9000)}}),
            )
        }
    )
    q = plan(p.site, own, {1: BOATS})
    assert [s.width for s in sizes_of(q, groups_of(q)[0])] == [900, 1800, 5120]
    for n in (1, 3, 8):
        q = plan(p.site, p.placement.model_copy(update={"n_files": n}), {1: BOATS})
        assert len(sizes_of(q, groups_of(q)[0])) == n


def test_only_visitors_inside_the_spans_count():
    audience = (
        Viewers(width=400, height=800, density=2, weight=9),
        Viewers(width=1500, height=900, density=1, weight=1),
    )
    p = planned(
        Site(breakpoints=(999,), audience=audience),
        B=Treatment(height=RatioHeight(w=16, h=9)),
        A=Treatment(height=RatioHeight(w=1, h=1)),
    )
    narrow, wide = groups_of(p)
    assert [n.px for n in climbed(narrow, p).needs] == [800, 1998]
    assert [n.px for n in climbed(wide, p).needs] == [1500, 5120]


def test_no_file_is_longer_than_its_format_holds():
    """WebP: 14 bits a side (RFC 6386, §9.1)."""
    long = BOATS.model_copy(update={"width_px": 30000, "height_px": 3000})
    site = Site(widest=7680, densities=(1, 2, 3), lists="densities")
    p = planned(site, D=Treatment(height=RatioHeight(w=16, h=1)))
    files = [f for _, mine in renditions(plan(site, p.placement, {1: long})) for f in mine]
    assert {(f.format, f.width_px) for f in files if f.width_px > 15360} == {("jpeg", 23040)}
    assert {f.format for f in files if f.width_px == 15360} == {"avif", "webp", "jpeg"}


def test_an_audience_that_sees_none_of_it_still_gives_a_ladder():
    audience = (Viewers(width=400, height=800),)
    p = planned(
        Site(breakpoints=(999,), audience=audience),
        B=Treatment(height=RatioHeight(w=16, h=9)),
        A=Treatment(show="nothing"),
    )
    (group,) = groups_of(p)
    assert [s.width for s in sizes_of(p, group)] == [5120]


# -- sizes --

FRAMES = [
    Treatment(width=FullWidth(), height=RatioHeight(w=16, h=9)),
    Treatment(width=ShareWidth(percent=62.5, of="container"), height=RatioHeight(w=1, h=1)),
    Treatment(width=ColumnsWidth(columns=3, gutter_px=20), height=FixedHeight(height_px=400)),
    Treatment(
        width=PercentColumnsWidth(columns=3, padding_percent=1), height=RatioHeight(w=3, h=2)
    ),
    Treatment(width=FullWidth(greatest_px=900, least_px=500), height=ViewportHeight(percent=60)),
    Treatment(width=FullWidth(), height=RatioHeight(w=3, h=1, least_px=300), whole=True),
]


@pytest.mark.parametrize("treatment", FRAMES)
@pytest.mark.parametrize("style", ["max-width", "min-width", "range"])
def test_sizes_say_the_drawn_width_at_every_width_and_never_more(treatment, style):
    site = Site(media_style=style, lists="widths")
    p = planned(site, D=treatment, B=Treatment(width=FullWidth()))
    markup = delivered(site, p.placement, {1: BOATS}).texts["snippet.html"]
    said = re.findall(r'media="[^"]*"[^>]*sizes="([^"]+)"|sizes="([^"]+)"', markup)
    assert said and not any(re.search(r"min\(|max\(|clamp\(", "".join(s)) for s in said)
    for s in p.parts[0].spans:
        assert isinstance(s, ShownSpan)
        drawn = drawn_widths(s)
        for i in range(0, len(drawn), 7):
            width = float(s.viewport_w[i])
            sizes = _sizes_at(markup, width)
            assert drawn[i] - 0.01 <= sizes <= drawn[i] + 1e-9, (width, sizes, drawn[i])


def _sizes_at(markup, width):
    """What the taken source's `sizes` evaluates to."""
    env = Environment(width, 800)
    for tag in re.findall(r"<(?:source|img)[^>]*>", markup):
        media = re.search(r'media="([^"]+)"', tag)
        if media and not media_matches(media[1].replace("&lt;", "<"), env):
            continue
        found = re.search(r'sizes="([^"]+)"', tag)
        return evaluate_sizes(found[1].replace("&lt;", "<"), env).width
    raise AssertionError(width)


@pytest.mark.parametrize("treatment", FRAMES)
def test_every_visitor_takes_the_rung_that_suffices(treatment):
    """Exactly on a need, too: `sizes` never exceeds the drawn width (rules §7)."""
    site = Site(lists="widths")
    p = planned(site, D=treatment)
    found = delivered(site, p.placement, {1: BOATS})
    px = {f"images/{r.name}": r.width_px for r in found.files}
    for s in p.parts[0].spans:
        group = next(g for g in groups_of(p) if s.span.letter in g.letters)
        widths = [x.width for x in sizes_of(p, group)]
        for i in range(0, len(s.viewport_w), 53):
            for density in (1, 1.5, 2, 3):
                need = np.ceil(round(float(drawn_widths(s)[i]) * density, 4))
                enough_ = next((w for w in widths if w >= need), widths[-1])
                env = Environment(float(s.viewport_w[i]), 800, density)
                assert px[pick(found.texts["snippet.html"], env).url] == enough_


@given(
    st.lists(st.integers(0, 40), min_size=1, max_size=6),
    st.integers(320, 900),
    st.lists(st.sampled_from([0.0, 0.25, 0.5, 1.0, 2.0]), min_size=6, max_size=6),
)
def test_straight_lines_are_exact_at_every_whole_width(lengths, first, slopes):
    y = [100.0]
    for n, slope in zip(lengths, slopes, strict=False):
        y += [y[-1] + slope * (i + 1) for i in range(n)]
    v = np.arange(first, first + len(y), dtype=float)
    lines = straight_lines(v, np.array(y))
    for width, value in zip(v, y, strict=True):
        line = next(x for x in lines if width <= x.until)
        assert line.share * width + line.constant == pytest.approx(value, abs=1e-6)
    assert all(a.until < b.until for a, b in itertools.pairwise(lines))


def test_two_lines_meet_where_they_cross_between_two_widths():
    v = np.arange(320, 2561, dtype=float)
    lines = straight_lines(v, np.minimum(1000, 0.75 * v))
    assert [round(x.until, 3) for x in lines[:-1]] == [1333.333]


# -- the reading --


def test_the_reading_tells_what_other_numbers_of_files_would_waste():
    p = planned(Site(), D=Treatment(height=RatioHeight(w=16, h=9)))
    (ladder,) = read(p.site, p.placement, {1: BOATS}).ladders
    waste = [t.waste for t in ladder.curve]
    assert waste == sorted(waste, reverse=True) and ladder.waste <= 0.10
    assert ladder.waste == waste[len(ladder.rungs) - 1]
    assert sum(r.share for r in ladder.rungs) == pytest.approx(1, abs=1e-3)
    assert ladder.measured is None and ladder.fitted is None
    at2 = next(t for t in ladder.taken if t.density == 2)
    assert (at2.runs[0].first, at2.runs[-1].last) == (320, 2560)
    assert all(b.first == a.last + 1 for a, b in itertools.pairwise(at2.runs))


def test_files_that_are_made_say_how_their_bytes_grow():
    p = planned(Site(formats=("avif", "jpeg")), D=Treatment(height=RatioHeight(w=16, h=9)))
    keys = {r.key: round(r.width_px**1.3) for _, mine in renditions(p) for r in mine}
    made = lambda asked: {k: keys[k] for k in asked if k in keys}
    (ladder,) = read(p.site, p.placement, {1: BOATS}, made_bytes=made).ladders
    assert ladder.exponent == pytest.approx(1.3, abs=0.01)
    assert ladder.measured is not None and ladder.fitted is not None
    assert all(r.size_bytes for r in ladder.rungs)


def test_a_ladder_follows_from_the_plan_alone():
    """The same plan asks for the same files, whatever has been made of it before."""
    p = planned(Site(), D=Treatment(height=RatioHeight(w=16, h=9)))
    before = [f.name for f in read(p.site, p.placement, {1: BOATS}).files[0].formats]
    made = lambda asked: {k: 10**i for i, k in enumerate(asked)}
    after = read(p.site, p.placement, {1: BOATS}, made_bytes=made).files[0].formats
    assert [f.name for f in after] == before


def test_an_audience_of_nobody_is_refused():
    with pytest.raises(ValueError, match="nobody looks"):
        Site(audience=(Viewers(width=400, height=800, weight=0),))


def test_a_frame_that_is_no_longer_named_is_refused():
    p = picture("x", {"D": Treatment(original=1)}).model_copy(update={"frame": "gone"})
    with pytest.raises(InvalidPlan, match="not among the frames"):
        plan(Site(), p, {1: BOATS})


def test_what_the_lightest_format_saves_is_said_once_all_is_made():
    p = planned(Site(formats=("avif", "webp", "jpeg")), D=Treatment(height=RatioHeight(w=16, h=9)))
    mine = [r for _, files in renditions(p) for r in files]
    each = {"avif": 47, "webp": 60, "jpeg": 100}
    made = {r.key: each[r.format] for r in mine}
    (saving,) = read(p.site, p.placement, {1: BOATS}, made_bytes=lambda _: made).savings
    assert (saving.format, saving.against, saving.share) == ("avif", "jpeg", 0.53)
    made.pop(mine[0].key)
    assert read(p.site, p.placement, {1: BOATS}, made_bytes=lambda _: made).savings == ()
    heavier = {r.key: 100 + (r.format != "jpeg") for r in mine}
    assert read(p.site, p.placement, {1: BOATS}, made_bytes=lambda _: heavier).savings == ()


@given(
    st.builds(Crop, x=st.just(0), y=st.just(0), w=st.integers(40, 9000), h=st.integers(40, 9000)),
    st.integers(16, 2600),
)
def test_the_file_for_2x_is_exactly_twice_that_for_1x_on_both_sides(crop, needed):
    """So that a screen of each density draws the very same picture; never beyond the crop, which
    rounding up its half would be by one px (rules §3)."""
    sizes = pixel_sizes(crop, needed, (1, 2))
    for width, height in sizes.values():
        assert width <= crop.w and height <= crop.h
        assert abs(height - width * crop.h / crop.w) <= 2
    if 2 * needed <= crop.w:
        (w1, h1), (w2, h2) = sizes[1], sizes[2]
        assert (w1, w2) == (needed, 2 * needed)
        assert h2 == min(2 * h1, crop.h)


def test_a_ladder_stops_at_the_most_files_of_its_site_whatever_is_wasted():
    """And before that as soon as little enough is (rules §7)."""
    audience = tuple(Viewers(width=w, height=900) for w in range(400, 2000, 100))

    def taken(most: int, waste_percent: float):
        site = Site(breakpoints=(), audience=audience, most_files=most, waste_percent=waste_percent)
        p = planned(site, A=Treatment(height=RatioHeight(w=16, h=9)))
        return climbed(groups_of(p)[0], p).taken

    for most in (1, 3, 5):
        assert len(taken(most, 0).widths) == most and taken(most, 0).waste > 0
    enough_ = taken(8, 100)
    assert len(enough_.widths) < 8 and enough_.waste <= 1
    assert taken(len(enough_.widths) - 1, 100).waste > 1


def test_visitors_beyond_the_widths_of_a_site_count_for_its_nearest_span():
    """Whoever is narrower than its narrowest width, or wider than its widest, takes a file all the
    same: that of the end (rules §7)."""
    audience = (
        Viewers(width=200, height=400, density=2, weight=1),
        Viewers(width=5000, height=2000, density=1, weight=1),
    )
    site = Site(breakpoints=(999,), narrowest=320, widest=2000, audience=audience)
    p = planned(
        site,
        B=Treatment(height=RatioHeight(w=16, h=9)),
        A=Treatment(height=RatioHeight(w=1, h=1)),
    )
    narrow, wide = groups_of(p)
    assert min(n.px for n in climbed(narrow, p).needs) == 2 * 320
    assert {n.px for n in climbed(wide, p).needs} >= {2000}
