"""What is told where it is asked for: how many areas fit, how far a picture can be enlarged, shares
that a decision hangs on, frames wider than their column, and the lettering of marks."""

from itertools import combinations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from skypane.findings import findings_of
from skypane.kinds.banner.values import BannerValues
from skypane.model import (
    Area,
    ColumnsWidth,
    Container,
    Original,
    Part,
    Placement,
    RatioHeight,
    Rect,
    Site,
    Treatment,
    Words,
    picture,
)
from skypane.numerals import shares_text
from skypane.reading import read
from skypane.shown.keeps import hull
from skypane.shown.plan import plan
from skypane.shown.together import together

SITE = Site(breakpoints=(799,))


def area(
    name: str, x: float, y: float = 0.4, w: float = 0.1, h: float = 0.2, **more: object
) -> Area:
    return Area(name=name, rect=Rect(x=x, y=y, w=w, h=h), **more)


def shown(areas: tuple[Area, ...], w: float, h: float):
    """A camera's picture, 6000×4000 px, in a frame of a ratio."""
    original = Original(
        id=1, name="quay.jpg", width_px=6000, height_px=4000, sha256="q", areas=areas
    )
    placement = picture(
        "Quay", {"B": Treatment(original=1, height=RatioHeight(w=w, h=h))}, alt="Quay"
    )
    return plan(SITE, placement, {1: original}).parts[0].spans[0]


def test_two_of_three_fit_at_three_to_four():
    """At 3:4 half of the width of a 3:2 picture shows; the first of equally many come first."""
    found = together(shown((area("Mast", 0.05), area("Bell", 0.5), area("Flag", 0.85)), 3, 4))
    assert found is not None and (found.of, found.enlarged) == (3, None)
    assert found.most == ("Bell", "Flag")
    only = together(shown((area("Mast", 0.05), area("Flag", 0.85)), 3, 4))
    assert only is not None and only.most == ("Mast",)


def test_how_far_it_can_be_enlarged_is_what_the_window_has_around_them():
    """At 3:2 all of it shows; areas from 0.2 to 0.7 need half of the width and a fifth of the
    height."""
    found = together(shown((area("Mast", 0.2), area("Bell", 0.6)), 3, 2))
    assert found is not None and (len(found.most), found.enlarged) == (2, 2.0)
    assert together(shown((), 3, 2)) is None


rects = st.tuples(st.floats(0, 0.8), st.floats(0, 0.8), st.floats(0.02, 0.2), st.floats(0.02, 0.2))


@given(st.lists(rects, min_size=1, max_size=6), st.sampled_from([(3, 4), (1, 1), (4, 1), (1, 3)]))
def test_no_more_fit_than_is_said(found, ratio):
    """Held against all subsets: one fits where the rectangle around it is no larger than what
    shows."""
    areas = tuple(area(str(i), x, y, w, h) for i, (x, y, w, h) in enumerate(found))
    p = shown(areas, *ratio)
    said = together(p)
    assert said is not None
    w = float((p.shown.x1 - p.shown.x0).min()) + 1e-9
    h = float((p.shown.y1 - p.shown.y0).min()) + 1e-9

    def fits(some: tuple[Area, ...]) -> bool:
        return not some or (hull(some).w <= w and hull(some).h <= h)

    sizes = (n for n in range(len(areas), -1, -1) if any(map(fits, combinations(areas, n))))
    assert len(said.most) == next(sizes)
    assert fits(tuple(a for a in areas if a.name in said.most))


@pytest.mark.parametrize(
    ("a", "b", "said"),
    [
        (0.4219, 0.4231, ("42.19 %", "42.31 %")),
        (0.4219, 0.72, ("42 %", "72 %")),
        (0.5, 0.5, ("50 %", "50 %")),
    ],
)
def test_shares_that_are_near_each_other_are_told_to_a_hundredth(a, b, said):
    assert shares_text(a, b) == said


def test_a_frame_wider_than_its_column_is_told_with_how_much_too_wide_it_is():
    """270 px in a column of 225: a fifth too wide."""
    width = ColumnsWidth(columns=4, gutter_px=20, of="container", least_px=270)
    site = Site(breakpoints=(799,), container=Container(max_width_px=960, margin_px=0))
    original = Original(id=1, name="quay.jpg", width_px=6000, height_px=4000, sha256="q")
    placement = picture("Quay", {"B": Treatment(original=1, width=width)}, alt="Quay")
    found = {f.rule: f for f in findings_of(plan(site, placement, {1: original}))}
    said = found["wider-than-column"]
    assert said.spans == ("A", "B") and said.at == "width"
    wide = picture("Quay", {"B": Treatment(original=1, width=width, show="nothing")})
    assert not findings_of(plan(site, wide, {1: original}))
    # where the column is 225 px wide
    at = 960
    narrow = Site(narrowest=at, widest=at + 1, breakpoints=(), container=site.container)
    only = picture("Quay", {"A": Treatment(original=1, width=width)}, alt="Quay")
    (one,) = (
        f for f in findings_of(plan(narrow, only, {1: original})) if f.rule == "wider-than-column"
    )
    assert "270 px in a column of 225 px at 960 px: 20 % too wide" in one.sentence


def test_a_marks_lettering_is_told_down_to_which_width_it_can_be_read():
    """A mark of 4:1 whose lettering is a quarter of its height: 11 px of it are 176 px of width
    (as for the cuts of a logo)."""
    lettering = area("Title", 0.1, 0.3, 0.8, 0.25, lettering=True)
    mark = Original(
        id=2,
        name="title.svg",
        width_px=800,
        height_px=200,
        sha256="t",
        alpha=True,
        medium="drawing",
        areas=(lettering,),
    )
    quay = Original(id=1, name="quay.jpg", width_px=6000, height_px=4000, sha256="q", alt="Quay")
    placement = Placement(
        name="Quay",
        kind="banner",
        words=Words(),
        parts=(
            Part(treatments={"B": Treatment(original=1, height=RatioHeight(w=2, h=1))}),
            Part(role="mark", treatments={"B": Treatment(original=2)}),
        ),
        layout={"B": BannerValues(mark_percent=20, mark_most_px=400).model_dump(mode="json")},
    )
    reading = read(SITE, placement, {1: quay, 2: mark}, chosen=(0, "A"), words=True)
    assert reading.words is not None
    marks = {m.letter: m for m in reading.words.marks}
    assert {m.readable_from_px for m in marks.values()} == {176.0}
    assert marks["A"].narrowest_px == pytest.approx(0.2 * 320, abs=6)
    small = next(f for f in reading.findings if f.rule == "mark-small")
    assert small.at == "mark_percent" and "can be read from 176 px" in small.sentence
    bare = mark.model_copy(update={"areas": ()})
    silent = read(SITE, placement, {1: quay, 2: bare}, chosen=(0, "A"), words=True)
    assert silent.words is not None and silent.words.marks[0].readable_from_px is None
    assert not any(f.rule == "mark-small" for f in silent.findings)


def test_a_crop_stops_where_it_turns_soft_at_two_to_one_whatever_is_offered_above():
    """A frame of 799 px at most in 3:4: 1598 px wide at 2x, and what evening out may take."""
    original = Original(id=1, name="quay.jpg", width_px=6000, height_px=4000, sha256="q", alt="Q")
    held = {"A": Treatment(original=1, height=RatioHeight(w=3, h=4))}
    placement = picture("Quay", {"B": Treatment(original=1), **held})
    for densities in ((1.0, 2.0), (1.0, 2.0, 3.0)):
        site = Site(breakpoints=(799,), densities=densities)
        reading = read(site, placement, {1: original}, chosen=(0, "A"))
        assert reading.parts[0].detail is not None
        facts = reading.parts[0].detail.crop
        assert facts is not None and facts.held is not None
        assert facts.held.ratio == pytest.approx(0.75) and facts.held.is_one
        assert (facts.held.stop.density, facts.held.stop.width_px) == (2, 1600)
        assert facts.held.stop.height_px in (2133, 2134)
        # as it is, the whole picture of 3:2: its height is what binds, 1066 px of frame
        assert facts.stop.width_px == pytest.approx(1.5 * 4 / 3 * 1598 + 2, abs=2)
        assert [n.sharp_to_px for n in facts.needs[:2]] == [6000, 3000]
