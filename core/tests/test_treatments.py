"""Treatments: crops, colour, nothing, which areas matter; handed down, and never reaching a wider
span (rules §4, §5)."""

import json

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from marked import original, plan_of
from planned import delivered, own, read_part, span_plans, treated
from selectolax.lexbor import LexborHTMLParser
from skypane.errors import InvalidPlan
from skypane.files.groups import groups
from skypane.files.renditions import renditions
from skypane.geometry import Rect
from skypane.handing_down import Origin
from skypane.handover import finish
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.pane import pane_lines
from skypane.markup.picture import placement_lines
from skypane.markup.sources import BLANK
from skypane.model import (
    Area,
    FixedAim,
    FixedHeight,
    Following,
    NaturalHeight,
    Original,
    Part,
    RatioHeight,
    Site,
    Treatment,
    ViewportHeight,
    picture,
)
from skypane.picks import Environment, pick
from skypane.shown.fit import shows
from skypane.shown.keeps import failing, fates
from skypane.shown.nouns import PartPlan, ShownSpan
from skypane.shown.parts import crop_px
from skypane.shown.plan import plan
from skypane.treatments import resolve

SITE = Site()
BOATS = original(
    (0.5, 0.7, 0.4, 0.9),
    (0.1, 0.2, 0.5, 0.9),
    size=(4000, 2000),
    focal=(0.6, 0.7),
    sha256="b",
    alt="Boats",
)
TALL = original((0.4, 0.6, 0.4, 0.6), size=(2000, 3000), id=2, sha256="t")
BOTH = {1: BOATS, 2: TALL}


def placed(**by_letter):
    base = {"D": Treatment(original=1, height=RatioHeight(w=2, h=1))}
    return picture(name="Boats", treatments={**base, **by_letter})


def spans(placement, site=SITE):
    return {p.span.letter: p for p in span_plans(site, placement, BOTH)}


# -- crops --


@settings(max_examples=80, deadline=None)
@given(
    st.tuples(st.floats(0, 0.6), st.floats(0, 0.6), st.floats(0.2, 0.4), st.floats(0.2, 0.4)),
    st.floats(0.3, 4),
    st.tuples(st.floats(0, 1), st.floats(0, 1)),
)
def test_a_crop_shows_what_the_cropped_picture_would_show(crop, ratio, aim):
    """Against `shows` on a picture that is the crop (CSS Images 3): the same window, moved by the
    crop's corner."""
    x, y, w, h = crop
    p = plan_of(
        BOATS,
        height=RatioHeight(w=ratio, h=1),
        crop=Rect(x=x, y=y, w=w, h=h),
        aim=FixedAim(x=aim[0], y=aim[1]),
    )
    W, H = float(p.W[0, 7]), float(p.H[0, 7])
    seen = shows((4000 * w, 2000 * h), (W, H), "cover", aim).visible
    got = (p.shown.x0[0, 7], p.shown.x1[0, 7], p.shown.y0[0, 7], p.shown.y1[0, 7])
    expected = (
        x + seen.x / 4000,
        x + (seen.x + seen.w) / 4000,
        y + seen.y / 2000,
        y + (seen.y + seen.h) / 2000,
    )
    assert got == pytest.approx(expected, abs=1e-6)
    assert p.shown.drawn_w[0, 7] == pytest.approx(max(W, H * 2 * w / h) / w)


def test_the_files_are_cut_from_inside_the_crop_and_needed_px_are_those_of_the_crop():
    p = plan_of(BOATS, height=RatioHeight(w=1, h=1), crop=Rect(x=0.5, y=0, w=0.5, h=1))
    (group,) = groups(PartPlan(0, Part(), (p,), {}), "densities")
    assert (group.crop.x >= 2000, group.crop.w, group.crop.h, group.needed) == (
        True,
        2000,
        2000,
        700,
    )
    q = plan_of(BOATS, height=RatioHeight(w=1, h=1), crop=Rect(x=0.5, y=0, w=0.5, h=1), whole=True)
    assert crop_px(BOATS, q.cut).model_dump() == {"x": 2000, "y": 0, "w": 2000, "h": 2000}


def test_a_natural_frame_has_the_ratio_of_the_crop():
    p = plan_of(BOATS, height=NaturalHeight(), crop=Rect(x=0, y=0, w=0.5, h=1))
    assert pytest.approx(np.ones_like(p.W)) == p.W / p.H
    assert p.layout.frame_css(p.spot, 0)["aspect-ratio"] == "2000 / 2000"


def test_an_area_that_the_crop_leaves_out_is_cut_at_every_width():
    p = plan_of(BOATS, height=RatioHeight(w=1, h=1), crop=Rect(x=0.58, y=0.2, w=0.4, h=0.8))
    found, share = fates(p, BOATS.keeps[0])
    # of 0.5…0.7 what lies right of 0.58
    assert set(found) == {"cut"} and share == pytest.approx(0.6)
    assert [a.name for a in failing(p)] == ["K0", "K1"]


def test_the_whole_picture_as_crop_is_no_crop():
    plain = plan_of(BOATS, height=RatioHeight(w=3, h=2))
    same = plan_of(BOATS, height=RatioHeight(w=3, h=2), crop=Rect(x=0, y=0, w=1, h=1))
    assert np.array_equal(plain.shown.x0, same.shown.x0) and plain.cut == same.cut


@settings(max_examples=40, deadline=None)
@given(
    st.floats(0.1, 0.9),
    st.lists(st.tuples(st.floats(0, 0.7), st.floats(0.1, 0.3)), min_size=1, max_size=3),
    st.floats(30, 110),
)
def test_the_files_carry_what_shows_at_viewport_heights_between_those_computed(
    focal, areas, percent
):
    """rules §4, *Cut*: the rendition carries every window of the span, also at heights that were
    not computed."""
    o = original(*((x, x + w, 0.3, 0.6) for x, w in areas), focal=(focal, 0.5))
    site = Site(narrowest=600, widest=640, breakpoints=())
    p = plan_of(o, site, height=ViewportHeight(percent=percent))
    for height in np.linspace(p.viewport_h.min(), p.viewport_h.max(), 23):
        q = plan_of(o, site, height=FixedHeight(height_px=height * percent / 100))
        assert q.cut.x >= p.cut.x - 2e-3 and q.cut.x1 <= p.cut.x1 + 2e-3
        assert q.cut.y >= p.cut.y - 2e-3 and q.cut.y1 <= p.cut.y1 + 2e-3


# -- which areas matter --


def test_a_narrow_span_may_let_an_area_go():
    both = plan_of(BOATS, height=RatioHeight(w=1, h=2))
    one = plan_of(BOATS, height=RatioHeight(w=1, h=2), keeps=("K1",))
    assert [a.name for a in failing(both)] == ["K1"] and failing(one) == ()
    assert one.shown.x0.max() <= 0.1 + 1e-9  # it now follows the area that is left


def test_the_order_of_a_span_decides_which_area_wins():
    o = original((0.0, 0.2, 0.4, 0.6), (0.8, 1.0, 0.4, 0.6))
    first = plan_of(o, height=RatioHeight(w=1, h=1), keeps=("K0", "K1"))
    second = plan_of(o, height=RatioHeight(w=1, h=1), keeps=("K1", "K0"))
    assert [a.name for a in failing(first)] == ["K1"] and [a.name for a in failing(second)] == [
        "K0"
    ]


def test_a_name_that_is_not_there_any_more_is_passed_over():
    assert [a.name for a in plan_of(BOATS, keeps=("Gone", "K1")).keeps] == ["K1"]


def test_an_area_that_was_let_go_has_no_band_there():
    reading = read_part(SITE, placed(A=Treatment(keeps=("K0",))), BOTH)
    k1 = next(b for b in reading.bands if b.name == "K1")
    assert (
        k1.runs[0].first == 600
        and next(b for b in reading.bands if b.name == "K0").runs[0].first == 320
    )


# -- handing down --


def test_crop_and_areas_are_handed_down_only_as_far_as_their_original_is():
    crop = Rect(x=0.1, y=0.1, w=0.5, h=0.5)
    placement = placed(
        C=Treatment(crop=crop, keeps=("K0",)),
        B=Treatment(original=2),
        A=Treatment(fit="contain"),
    )
    (held,) = resolve(SITE, placement)
    assert held["C"].effective.crop == crop and held["D"].effective.crop is None
    for letter in "AB":
        assert (held[letter].effective.crop, held[letter].effective.keeps) == (None, None)
        assert "crop" not in held[letter].origin


def test_an_own_crop_beside_another_original_counts():
    crop = Rect(x=0.2, y=0.2, w=0.5, h=0.5)
    (held,) = resolve(SITE, placed(B=Treatment(original=2, crop=crop)))
    assert held["A"].effective.crop == crop and held["A"].origin["crop"] == Origin("B", "part")


values = st.sampled_from(
    [
        {"height": RatioHeight(w=1, h=1)},
        {"crop": Rect(x=0.1, y=0, w=0.6, h=0.8)},
        {"keeps": ("K1",)},
        {"show": "colour"},
        {"show": "nothing"},
        {"aim": Following(areas=False)},
        {"original": 2},
        {"background": "#102030"},
    ]
)


@settings(max_examples=40, deadline=None)
@given(st.sampled_from("ABC"), values, st.dictionaries(st.sampled_from("ABC"), values, max_size=3))
def test_changing_a_span_never_alters_a_wider_one(letter, change, others):
    before = placed(**{k: Treatment(**v) for k, v in others.items()})
    mine = own(before).get(letter, Treatment()).model_copy(update=change)
    after = treated(before, {**own(before), letter: mine})
    one, two = (read_part(SITE, p, BOTH) for p in (before, after))
    for a, b in zip(one.spans, two.spans, strict=True):
        if a.letter > letter:
            assert a.fingerprint == b.fingerprint
            assert (a.x0, a.safe, a.frame_h) == (b.x0, b.safe, b.frame_h)
            for x, y in zip(clipped(one, a), clipped(two, a), strict=True):
                assert x == y


def clipped(reading, span):
    """Every area's verdicts within one span."""
    return [
        (b.name, max(r.first, span.first), min(r.last, span.last), r.verdict)
        for b in reading.bands
        if b.kind == "area"
        for r in b.runs
        if r.first <= span.last and r.last >= span.first
    ]


def test_prints_differ_exactly_where_something_shows_otherwise():
    a, b = (read_part(SITE, p, BOTH) for p in (placed(), placed(B=Treatment(background="#101010"))))
    assert [
        x.letter for x, y in zip(a.spans, b.spans, strict=True) if x.fingerprint != y.fingerprint
    ] == [
        "A",
        "B",
    ]


# -- colour and nothing --


def test_a_span_without_a_picture_fetches_none():
    for show in ("colour", "nothing"):
        placement = placed(A=Treatment(show=show))
        computed = plan(SITE, placement, BOTH)
        markup = text_of(placement_lines(computed, renditions(computed)))
        assert pick(markup, Environment(width=400, height=700, density=2)).url == BLANK
        assert pick(markup, Environment(width=700, height=900, density=2)).url.startswith("images/")
        css = text_of(css_lines(computed))
        assert ("display: none" in css) is (show == "nothing")


@pytest.mark.parametrize("style", ["max-width", "min-width", "range"])
def test_what_is_hidden_in_the_widest_or_narrowest_span_comes_back_in_the_others(style):
    site = Site(media_style=style)
    for letter, inside, other in (("D", 1700, 1300), ("A", 400, 700)):
        placement = placed(
            **(
                {"D": Treatment(original=1, show="nothing"), "C": Treatment(show="picture")}
                if letter == "D"
                else {"A": Treatment(show="nothing")}
            )
        )
        computed = plan(site, placement, BOTH)
        markup = text_of(placement_lines(computed, renditions(computed)))
        urls = [pick(markup, Environment(width=w, height=900)).url for w in (inside, other)]
        assert urls[0] == BLANK and urls[1] != BLANK
        assert len(LexborHTMLParser(markup).css("img")) == 1
        css = text_of(css_lines(computed))
        assert css.count("display: none") == 1 and css.count("display: block") >= 1


def test_neighbouring_spans_without_a_picture_share_one_source():
    placement = placed(B=Treatment(show="colour"))
    computed = plan(SITE, placement, BOTH)
    markup = text_of(placement_lines(computed, renditions(computed)))
    assert markup.count(BLANK) == 1 and 'media="(max-width: 1023px)"' in markup


def test_a_span_without_a_picture_has_no_files_no_bands_and_asks_for_none():
    placement = placed(A=Treatment(show="colour"))
    reading = read_part(SITE, placement, BOTH)
    assert all("A" not in f.spans for f in reading.files)
    assert not [f for f in reading.findings if f.rule == "no-original"]
    assert reading.spans[0].frame_text == "only colour" and reading.spans[0].x0 is None
    assert [
        s["show"]
        for s in json.loads(finish(delivered(SITE, placement, BOTH), {}).texts["manifest.json"])[
            "spans"
        ]
    ] == [
        "colour",
        "picture",
        "picture",
        "picture",
    ]


def test_a_frame_that_is_not_shown_needs_no_size():
    zero = Treatment(width=None, height=FixedHeight(height_px=0.5))
    with pytest.raises(InvalidPlan, match="no height"):
        spans(placed(A=zero))
    assert not isinstance(
        spans(placed(A=zero.model_copy(update={"show": "nothing"})))["A"], ShownSpan
    )


def test_panes_ask_for_a_preview_of_the_crop():
    crop = Rect(x=0.25, y=0, w=0.5, h=1)
    placement = placed(A=Treatment(crop=crop))
    computed = plan(SITE, placement, BOTH)
    asked = []
    text = text_of(
        pane_lines(computed, lambda o, c, drawn: asked.append((o.id, c)) or f"p{len(asked)}")
    )
    assert (
        asked == [(1, crop), (1, None), (1, None), (1, None)]
        and 'width="2000" height="2000"' in text
    )


def test_lettering_in_a_decorative_picture_is_a_finding():
    """WCAG 2.2, 1.1.1 and 1.4.5: words in a picture have to be said by its alternative."""
    sign = Area(name="Sign", rect=Rect(x=0.4, y=0.4, w=0.2, h=0.2), lettering=True)
    o = Original(id=1, name="a.jpg", width_px=4000, height_px=2000, alt="", areas=(sign,))
    found = read_part(SITE, placed(), {1: o}).findings
    assert [f.rule for f in found if f.step == "code"] == ["lettering-unsaid"]
    said = o.model_copy(update={"alt": "A sign that says Ferry"})
    assert not [f for f in read_part(SITE, placed(), {1: said}).findings if f.step == "code"]
