"""Named frames, percentage columns and the sums that are shown for them (rules §2)."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from planned import read_part
from skypane.carried import respan, respanned
from skypane.errors import InvalidPlan
from skypane.handing_down import Origin
from skypane.model import (
    ColumnsWidth,
    Container,
    FixedHeight,
    FixedWidth,
    FrameValues,
    FullWidth,
    NamedFrame,
    Original,
    PercentColumnsWidth,
    RatioHeight,
    ShareWidth,
    Site,
    Treatment,
    picture,
)
from skypane.named import named_from, parted, using
from skypane.shown.plan import plan
from skypane.treatments import resolve
from skypane.widths.spans import spans_of
from skypane.widths.sums import row_of, width_sum

SKY = Original(id=1, name="o.jpg", width_px=4000, height_px=3000, alt="")
THIRD = NamedFrame(
    id="column-third",
    name="column third",
    spans={
        "D": FrameValues(width=ColumnsWidth(columns=3, gutter_px=60), height=RatioHeight(w=1, h=1)),
        "B": FrameValues(width=FullWidth()),
    },
)
LIKE_THIRD = {"frame": "column-third"}
SITE = Site(frames=(THIRD,))
V = np.arange(320, 2561, dtype=float)


def placed(frame="column-third", **treatments):
    held = {"D": Treatment(original=1), **treatments}
    return picture("x", held).model_copy(update={"frame": frame})


def held(site, placement):
    (by_letter,) = resolve(site, placement)
    return {letter: (r.effective.width, r.effective.height) for letter, r in by_letter.items()}


# -- sums; the figures are the check values of rules §2 (common practice) --

C = Container(max_width_px=1080, margin_px=20)


@pytest.mark.parametrize(
    ("rule", "at", "text"),
    [
        (ColumnsWidth(columns=3, gutter_px=60), 1440, "(1080 − 2·60)/3 = 320"),
        (ColumnsWidth(columns=2, gutter_px=60), 1440, "(1080 − 1·60)/2 = 510"),
        (ColumnsWidth(columns=4, gutter_px=60), 1440, "(1080 − 3·60)/4 = 225"),
        (ColumnsWidth(columns=4), 1440, "1080/4 = 270"),
        (ColumnsWidth(columns=1, gutter_px=60), 1440, "1080 = 1080"),
        (ColumnsWidth(columns=3, take=2, gutter_px=60), 1440, "2·(1080 − 2·60)/3 + 1·60 = 700"),
        (ColumnsWidth(columns=2, gutter_px=20), 640, "((640 − 2·20) − 1·20)/2 = 290"),
        (ShareWidth(percent=50), 1440, "50 % of 1440 = 720"),
        (ShareWidth(percent=50, greatest_px=600), 1440, "50 % of 1440 = 720, at most 600"),
        (ShareWidth(percent=50, least_px=300), 400, "50 % of 400 = 200, at least 300"),
        (FullWidth(), 767, "767"),
        (FixedWidth(width_px=471), 900, "471"),
        (
            PercentColumnsWidth(columns=3, padding_percent=1),
            1440,
            "(100/3 − 2·1) % of 1080 = 338.4",
        ),
        (
            PercentColumnsWidth(columns=2, percent=50, padding_percent=1, box="border-box"),
            1440,
            "(50 − 2·1) % of 1080 = 518.4",
        ),
        (
            PercentColumnsWidth(columns=3, percent=33.3, padding_percent=1),
            1440,
            "33.3 % of 1080 = 359.64",
        ),
    ],
)
def test_the_width_as_a_sum(rule, at, text):
    assert width_sum(rule, C, at) == text


def test_a_row_that_is_too_wide_wraps_and_says_the_sum():
    row = row_of(PercentColumnsWidth(columns=3, percent=33.3, padding_percent=1), V, C)
    assert row.text == "3 × (33.3 + 2) = 105.9 %" and len(row.wraps) == len(V)
    inside = PercentColumnsWidth(columns=3, percent=33.3, padding_percent=1, box="border-box")
    assert row_of(inside, V, C).text == "3 × 33.3 = 99.9 %" and not row_of(inside, V, C).wraps.size


def test_a_trace_too_much_does_not_wrap_but_is_told():
    six = PercentColumnsWidth(columns=6, percent=16.6667)
    assert not row_of(six, V, C).wraps.size
    reading = read_part(Site(), placed(None, D=Treatment(original=1, width=six)), {1: SKY})
    (found,) = [f for f in reading.findings if f.rule == "row-overflows"]
    # said once for all spans that it holds in
    assert found.spans == ("A", "B", "C", "D")
    assert found.sentence.startswith("6 × 16.6667 = 100.0002 %")


def test_columns_too_narrow_let_one_more_in():
    four = PercentColumnsWidth(columns=3, percent=24)
    reading = read_part(Site(), placed(None, D=Treatment(original=1, width=four)), {1: SKY})
    found = [f.sentence for f in reading.findings if f.rule == "one-more-in-row"]
    assert "3 × 24 = 72 %: a row holds 4 of them." in found


@given(
    st.integers(1, 12),
    st.floats(0, 4),
    st.sampled_from(["content-box", "border-box"]),
    st.integers(200, 3000),
)
def test_columns_that_are_not_told_their_width_fill_the_row(columns, padding, box, width):
    rule = PercentColumnsWidth(columns=columns, padding_percent=padding, box=box, of="page")
    row = row_of(rule, np.array([float(width)]), C)
    assert row.percent == pytest.approx(100) and not row.wraps.size


def test_padding_that_takes_everything_is_refused_with_the_sum():
    with pytest.raises(ValueError, match=r"33\.3333 − 2·20 = −6\.66667 %"):
        PercentColumnsWidth(columns=3, padding_percent=20)


def test_gutters_that_take_everything_are_refused_with_the_sum():
    p = placed(None, D=Treatment(original=1, width=ColumnsWidth(columns=12, gutter_px=30)))
    with pytest.raises(InvalidPlan, match=r"\(\(320 − 2·20\) − 11·30\)/12 = −4\.17"):
        plan(Site(), p, {1: SKY})


def test_where_the_frame_is_widest_is_told_often_on_the_narrow_side():
    # three columns of 1080 are 320 px, one on a screen of 767 is 767 (common practice)
    site = Site(breakpoints=(767,), container=Container(max_width_px=1080, margin_px=0))
    p = picture(
        "x",
        {
            "B": Treatment(original=1, width=ColumnsWidth(columns=3, gutter_px=60)),
            "A": Treatment(width=FullWidth()),
        },
    )
    reading = read_part(site, p, {1: SKY})
    (band,) = [b for b in reading.bands if b.kind == "frame"]
    assert band.peak == (767, 767)
    assert np.interp(1500, *zip(*band.curve.points, strict=True)) == pytest.approx(320)
    assert [s.text for s in reading.spans[1].sums][-1] == "(1080 − 2·60)/3 = 320"


# -- named frames --


def test_a_named_frame_lies_under_what_a_placement_says():
    width, height = held(SITE, placed())["D"]
    assert isinstance(width, ColumnsWidth) and height == RatioHeight(w=1, h=1)
    (by_letter,) = resolve(SITE, placed(C=Treatment(height=FixedHeight(height_px=300))))
    below, above = Origin("B", "frame"), Origin("D", "frame")
    assert [by_letter[x].origin["width"] for x in "ABCD"] == [below, below, above, above]
    assert by_letter["A"].origin["height"] == Origin("C", "part")
    assert by_letter["D"].origin["height"] == above


def test_changing_it_changes_every_placement_that_uses_it():
    wide = THIRD.model_copy(update={"spans": {"D": FrameValues(width=FixedWidth(width_px=900))}})
    after = SITE.model_copy(update={"frames": (wide,)})
    assert held(after, placed())["D"][0] == FixedWidth(width_px=900)
    assert held(after, placed(None))["D"][0] == FullWidth()


def test_a_placement_that_parts_from_it_shows_the_same():
    p = placed(C=Treatment(height=FixedHeight(height_px=300)), A=Treatment(width=FullWidth()))
    alone = parted(SITE, p)
    assert alone.frame is None and held(Site(), alone) == held(SITE, p)


widths = st.sampled_from([FullWidth(), FixedWidth(width_px=400), ShareWidth(percent=40), None])
heights = st.sampled_from([RatioHeight(w=1, h=1), FixedHeight(height_px=200), None])
letters = st.sampled_from("ABCD")


@given(
    st.dictionaries(letters, st.builds(FrameValues, width=widths, height=heights)),
    st.dictionaries(letters, st.builds(Treatment, width=widths, height=heights)),
    st.sets(st.integers(321, 2500), min_size=0, max_size=5),
)
def test_other_breakpoints_change_nothing_at_any_width(said, own, more):
    """Kept breakpoints stay, others come: every width does what it did, in the frame and in its
    placements."""
    before = Site(frames=(THIRD.model_copy(update={"spans": said}),))
    posts = tuple(sorted({*before.breakpoints, *more}))
    after = respanned(before, before.model_copy(update={"breakpoints": posts}))
    placement = picture("x", own).model_copy(update={"frame": "column-third"})
    carried = respan(before, after, placement)
    alone = picture("y").model_copy(update={"frame": "column-third"})
    for p, q in ((placement, carried), (alone, alone)):
        old, new = held(before, p), held(after, q)
        for span in spans_of(after):
            was = next(s.letter for s in spans_of(before) if s.first <= span.last <= s.last)
            assert new[span.letter] == old[was]


def test_frames_of_spans_that_are_not_there_and_doubles_are_refused():
    with pytest.raises(InvalidPlan, match="speaks of span D"):
        resolve(
            Site(breakpoints=(599,), frames=(THIRD,)), picture("x").model_copy(update=LIKE_THIRD)
        )
    with pytest.raises(ValueError, match="Two frames are called"):
        Site(frames=(THIRD, THIRD))


def test_a_frame_is_named_after_a_placement_that_has_it():
    p = placed(
        None,
        D=Treatment(original=1, width=FixedWidth(width_px=900)),
        B=Treatment(height=FixedHeight(height_px=300), fit="contain"),
    )
    after, using_it = named_from(SITE, p, "Hero 岬")
    (_, frame) = after.frames
    assert frame.id == "hero-jia" and set(frame.spans) == {"D", "B"}
    assert held(after, using_it) == held(SITE, p)
    assert using_it.parts[0].treatments["D"] == Treatment(original=1)
    assert using_it.parts[0].treatments["B"] == Treatment(fit="contain")
    with pytest.raises(InvalidPlan, match="already"):
        named_from(after, p, "Hero 岬")


def test_a_placement_takes_a_named_frame_in_the_place_of_its_own():
    p = placed(None, D=Treatment(original=1, width=FixedWidth(width_px=900), stands="end"))
    assert held(SITE, using(p, "column-third")) == held(SITE, placed())
