"""Spans and their media conditions (rules §1; Media Queries Level 4)."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from skypane.model import Site
from skypane.picks import Environment
from skypane.picks.media import media_matches
from skypane.picks.reach import reach
from skypane.widths.conditions import conditions, in_testing_order
from skypane.widths.spans import Span, spans_of

STYLES = ["max-width", "min-width", "range"]

sites = st.builds(
    lambda low, gaps: Site(
        narrowest=low,
        widest=low + sum(gaps) + 50,
        breakpoints=tuple(low + sum(gaps[: i + 1]) for i in range(len(gaps))),
    ),
    st.integers(200, 400),
    st.lists(st.integers(1, 400), max_size=8),
)


def test_the_usual_spans():
    assert spans_of(Site()) == (
        Span("A", "", 320, 599),
        Span("B", "", 600, 1023),
        Span("C", "", 1024, 1599),
        Span("D", "", 1600, 2560),
    )


@given(sites)
def test_spans_partition_the_range(site):
    widths = [w for s in spans_of(site) for w in range(s.first, s.last + 1)]
    assert widths == list(range(site.narrowest, site.widest + 1))


@given(sites, st.sampled_from(STYLES), st.data())
def test_the_first_condition_that_holds_is_the_one_of_the_width_s_span(site, style, data):
    width = data.draw(st.integers(site.narrowest, site.widest))
    spans = spans_of(site)
    taken = next(
        c.letter
        for c in conditions(spans, style)
        if c.media is None or media_matches(c.media, Environment(width, 800))
    )
    assert taken == next(s.letter for s in spans if s.first <= width <= s.last)


@pytest.mark.parametrize("style", STYLES)
def test_exactly_one_condition_is_left_out_and_it_is_tested_last(style):
    asked = conditions(spans_of(Site()), style)
    assert [c.media is None for c in asked] == [False, False, False, True]
    assert [c.letter for c in asked] == [
        s.letter for s in in_testing_order(spans_of(Site()), style)
    ]


def test_how_the_three_styles_write_the_bound_at_991():
    site = Site(breakpoints=(991,))
    assert conditions(spans_of(site), "max-width")[0].media == "(max-width: 991px)"
    assert conditions(spans_of(site), "min-width")[0].media == "(min-width: 992px)"
    assert conditions(spans_of(site), "range")[0].media == "(width < 992px)"


def test_independent_rules_leave_a_hole_at_a_fractional_width_that_range_does_not():
    # 991.5 px, as page zoom gives, is in neither of max-width: 991px and min-width: 992px (rules
    # §1)
    between = Environment(991.5, 800)
    assert not media_matches("(max-width: 991px)", between)
    assert not media_matches("(min-width: 992px)", between)
    assert media_matches("(width < 992px)", between)


def test_the_wrong_order_makes_sources_unreachable():
    wrong = ["(max-width: 1599px)", "(max-width: 1023px)", "(max-width: 599px)", None]
    assert reach(wrong, 320, 2560) == [[(320, 1599)], [], [], [(1600, 2560)]]
    right: list[str | None] = [c.media for c in conditions(spans_of(Site()), "max-width")]
    assert reach(right, 320, 2560) == [[(320, 599)], [(600, 1023)], [(1024, 1599)], [(1600, 2560)]]


@pytest.mark.parametrize(
    ("breakpoints", "said"),
    [
        ((599, 599), "599 is there twice"),
        ((319,), "319 lies outside"),
        ((2560,), "320 to 2559"),
        (tuple(range(400, 400 + 13)), "at most 12"),
    ],
)
def test_breakpoints_that_make_no_spans_are_refused_with_the_reason(breakpoints, said):
    with pytest.raises(ValueError, match=said):
        Site(breakpoints=breakpoints)


def test_breakpoints_may_be_named_in_any_order():
    assert Site(breakpoints=(1023, 599, 1599)) == Site(breakpoints=(599, 1023, 1599))


CONDITIONS = [
    "(max-width: 599px)",
    "(min-width: 600px) and (max-width: 1023.5px)",
    "(width < 37.5em)",
    "not all and (width >= 700px)",
    "(orientation: portrait)",
    "(min-aspect-ratio: 16/9)",
    "(400px <= width < 900px), (min-width: 2000px)",
    "(aspect-ratio > 1.5)",
    "(min-width: 50vw)",
    "(max-width: calc(300px + 20em))",
    "(min-width: 6in) or (min-height: 900px)",
    "(foo: 3px)",
]


@given(st.lists(st.sampled_from([*CONDITIONS, None]), min_size=1, max_size=6))
@settings(max_examples=40, deadline=None)
def test_reach_says_the_same_as_trying_every_width(media):
    first = {}
    for width in range(320, 1500):
        env = Environment(width, 800)
        first[width] = next(
            (i for i, m in enumerate(media) if m is None or media_matches(m, env)), None
        )
    told = {
        w: i
        for i, runs in enumerate(reach(media, 320, 1499))
        for a, b in runs
        for w in range(a, b + 1)
    }
    assert told == {w: i for w, i in first.items() if i is not None}
