"""A placement as it is seen under conditions: what Media Queries 5 says of which of several shows,
held to what a browser takes of the markup that is delivered."""

import numpy as np
import pytest
from bannered import WORDS
from hypothesis import given, settings
from hypothesis import strategies as st
from skypane import model as m
from skypane.carried import respan
from skypane.changes import Version, differences
from skypane.errors import InvalidPlan
from skypane.layouts import begun
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.pane import pane_lines
from skypane.picks import Environment, pick
from skypane.shown.nouns import ShownSpan
from skypane.shown.plan import plan
from skypane.shown.under_conditions import placement_seen, site_seen
from skypane.widths.frames import viewport_heights

SITE = m.Site(breakpoints=(599, 1023))
TOWER = m.Area(name="Tower", rect=m.Rect(x=0.7, y=0.2, w=0.2, h=0.6))
QUAY = m.Area(name="Quay", rect=m.Rect(x=0.1, y=0.5, w=0.3, h=0.4))


def picture(id, w, h, *areas):
    name = f"{id}.jpg"
    return m.Original(
        id=id, name=name, width_px=w, height_px=h, sha256=str(id), alt="", areas=areas
    )


# what cameras and phones give
ALL = {
    o.id: o
    for o in (
        picture(1, 6000, 4000, TOWER, QUAY),
        picture(2, 4032, 3024, QUAY),
        picture(3, 3024, 4032),
    )
}
CROPS = (m.Rect(x=0.2, y=0.1, w=0.6, h=0.7), m.Rect(x=0, y=0, w=1, h=1))


def address(original, crop, drawn_px):
    at = "whole" if crop is None else f"{crop.x:g},{crop.y:g},{crop.w:g},{crop.h:g}"
    return f"/{original.id}/{at}"


@st.composite
def treatments(draw, *shows):
    said = {
        "show": draw(st.sampled_from((None, None, "picture", "colour", "nothing", *shows))),
        "original": draw(st.sampled_from((None, 1, 2, 3))),
        "crop": draw(st.sampled_from((None, None, *CROPS))),
        "fit": draw(st.sampled_from((None, "cover", "contain"))),
        "background": draw(st.sampled_from((None, "#102030", "#d0e0f0"))),
    }
    return m.Treatment(**said)


@st.composite
def placements(draw):
    def spans(*shows):
        return {k: draw(treatments(*shows)) for k in draw(st.sets(st.sampled_from("ABC")))}

    first = {"C": m.Treatment(original=1, height=m.RatioHeight(w=3, h=2))}
    whens = draw(
        st.lists(
            st.sets(st.sampled_from(m.FEATURES), min_size=1).map(m.all_of), unique=True, max_size=4
        )
    )
    return m.Placement(
        name="Quay",
        common=spans(),
        parts=(
            m.Part(key="a", treatments={**spans(), **first}),
            *(m.Part(of="a", when=when, treatments=spans("usual")) for when in whens),
        ),
    )


SEEN = [m.Conditions(dark=d, still=s) for d in (False, True) for s in (False, True)]


def environment(conditions, width, upright):
    return Environment(
        width=width,
        height=width if upright else width - 1,
        color_scheme="dark" if conditions.dark else "light",
        reduced_motion="reduce" if conditions.still else "no-preference",
    )


@settings(max_examples=60, deadline=None)
@given(made=placements(), conditions=st.sampled_from(SEEN))
def test_what_is_seen_is_what_a_browser_takes_then(made, conditions):
    """A pane of what is seen, in a browser that asks for nothing, shows what the pane of the
    placement itself shows where the conditions hold, upright and lying."""
    whole = text_of(pane_lines(plan(SITE, made, ALL), address))
    folded = placement_seen(SITE, made, ALL, conditions)
    seen = text_of(pane_lines(plan(SITE, folded, ALL), address))
    for width in (320, 599, 600, 1023, 1024, 2000):
        for upright in (False, True):
            wanted = pick(whole, environment(conditions, width, upright)).url
            assert pick(seen, environment(m.AS_USUAL, width, upright)).url == wanted


@settings(max_examples=60, deadline=None)
@given(made=placements(), conditions=st.sampled_from(SEEN))
def test_it_lies_in_its_frame_as_it_does_then(made, conditions):
    """Frames, fit and colour are those of the part that then shows."""
    computed = plan(SITE, made, ALL)
    seen = plan(SITE, placement_seen(SITE, made, ALL, conditions), ALL)
    features = set(conditions.features)
    for span in seen.parts[0].spans:
        letter = span.span.letter
        others = (o for o in computed.alternatives(computed.parts[0]) if letter not in o.usual)
        shows = next((o for o in others if set(o.part.when) <= features), computed.parts[0])
        wanted = shows.of(letter)
        assert np.array_equal(span.W, wanted.W) and np.array_equal(span.H, wanted.H)
        assert span.effective.background == wanted.effective.background
        if isinstance(wanted, ShownSpan):
            assert (span.original.id, span.crop) == (wanted.original.id, wanted.crop)
            assert [a.name for a in span.keeps] == [a.name for a in wanted.keeps]
            assert span.effective.fit == wanted.effective.fit


def test_what_nobody_says_under_conditions_is_the_very_same():
    made = m.Placement(name="Quay", parts=(m.Part(treatments={"C": m.Treatment(original=1)}),))
    assert placement_seen(SITE, made, ALL, m.Conditions(dark=True, still=True)) is made


def test_of_pictures_that_are_not_there_yet_their_colour_shows():
    dark = m.Part(of="a", when=("dark",), treatments={"C": m.Treatment(background="#112233")})
    usual = m.Part(key="a", treatments={"C": m.Treatment(original=1), "A": m.Treatment(original=2)})
    made = m.Placement(name="Quay", parts=(usual, dark))
    seen = plan(SITE, placement_seen(SITE, made, ALL, m.Conditions(pictures="coming")), ALL)
    assert {p.effective.show for p in seen.parts[0].spans} == {"colour"}
    conditions = m.Conditions(dark=True, pictures="failed")
    seen = plan(SITE, placement_seen(SITE, made, ALL, conditions), ALL)
    assert {p.effective.background for p in seen.parts[0].spans} == {"#112233"}


@pytest.mark.parametrize("turn", ["upright", "lying"])
@pytest.mark.parametrize("site", [m.Site(), m.Site(narrowest=500, widest=500, breakpoints=())])
def test_all_screens_stand_as_they_are_told(turn, site):
    """A viewport as high as it is wide is portrait (Media Queries 4, §4.4)."""
    widths = np.arange(site.narrowest, site.widest + 1.0)
    for heights in viewport_heights(site_seen(site, m.Conditions(turn=turn)).heights, widths):
        assert ((heights >= widths) == (turn == "upright")).all()


def test_a_screen_that_stands_so_already_is_left_alone():
    """A phone of 360 × 640 stands upright; a laptop of 1280 × 800 lies."""
    widths = np.array([360.0, 1280.0])
    typical = viewport_heights(m.Site().heights, widths)[1]
    upright = viewport_heights(site_seen(m.Site(), m.Conditions(turn="upright")).heights, widths)[1]
    lying = viewport_heights(site_seen(m.Site(), m.Conditions(turn="lying")).heights, widths)[1]
    assert upright[0] == typical[0] == 640 and lying[1] == typical[1] == 800
    # turned over at that width, to within a step of widths
    assert 1280**2 / 800 <= upright[1] <= (1280 * 1.1) ** 2 / 800
    assert site_seen(m.Site(), m.AS_USUAL) == m.Site()


# -- values of the kind under conditions ------------------------------------------------------


def banner(**under):
    usual = m.Part(treatments={"C": m.Treatment(original=1)})
    over = tuple(
        m.LayoutUnder(when=tuple(when.split("_")), layout=layout) for when, layout in under.items()
    )
    return m.Placement(
        name="Quay",
        kind="banner",
        parts=(usual,),
        layout={"C": {"colour": "#ffffff"}, "A": {"colour": "#222222", "shows": "below"}},
        layout_under=over,
        words=WORDS,
    )


def colours(made, conditions=m.AS_USUAL):
    seen = plan(SITE, placement_seen(SITE, made, ALL, conditions), ALL)
    return [s.values.colour for s in seen.spots]


def test_values_of_the_kind_lie_over_the_usual_ones_in_every_span():
    """As those of a picture do: what is said for the dark is handed down, whatever is said of the
    narrower spans for always."""
    made = banner(dark={"C": {"colour": "#cccccc"}}, dark_still={"B": {"colour": "#999999"}})
    assert colours(made) == ["#222222", "#ffffff", "#ffffff"]
    assert colours(made, m.Conditions(dark=True)) == ["#cccccc"] * 3
    both = m.Conditions(dark=True, still=True)
    assert colours(made, both) == ["#999999", "#999999", "#cccccc"]
    assert colours(made, m.Conditions(still=True)) == ["#222222", "#ffffff", "#ffffff"]


def test_what_is_said_for_upright_screens_is_left_to_them():
    """Whether a screen stands upright depends on its width: it is said in the folded one too."""
    made = banner(dark_portrait={"B": {"colour": "#999999"}}, portrait={"C": {"strength": 0.9}})
    dark = placement_seen(SITE, made, ALL, m.Conditions(dark=True))
    (under,) = dark.layout_under
    assert under.when == ("portrait",)
    upright = plan(SITE, dark, ALL).under[("portrait",)]
    assert [s.values.colour for s in upright.spots] == ["#999999", "#999999", "#ffffff"]
    assert {s.values.strength for s in upright.spots} == {0.9}
    (by_day,) = placement_seen(SITE, made, ALL).layout_under
    assert by_day.layout == {"C": {"strength": 0.9}}


def test_the_style_sheet_says_them_under_their_conditions():
    made = banner(dark={"C": {"scrim": {"kind": "plain"}, "strength": 0.4}})
    css = text_of(css_lines(plan(SITE, made, ALL)))
    dark = css[css.index("(prefers-color-scheme: dark)") :]
    assert "background: rgb(0 0 0 / 40%)" in dark or "rgb(0 0 0 / 0.4)" in dark
    # an element that has a class of its own is meant by that, twice
    made = banner(dark={"C": {"colour": "#cccccc"}})
    words_ = text_of(css_lines(plan(SITE, made, ALL)))
    assert ".quay-words.quay-words {" in words_[words_.index("(prefers-color-scheme: dark)") :]
    # what it is painted on is there for always, though nothing is painted on it usually
    before = css[: css.index("(prefers-color-scheme: dark)")]
    assert 'content: ""' in before


def test_they_follow_new_breakpoints_and_go_with_their_kind():
    made = banner(dark={"C": {"colour": "#cccccc"}, "A": {"colour": "#999999"}})
    more = SITE.model_copy(update={"breakpoints": (599, 799, 1023)})
    (under,) = respan(SITE, more, made).layout_under
    # 600 to 799 took after 1023: what A said stays with it
    assert under.layout == {"D": {"colour": "#cccccc"}, "A": {"colour": "#999999"}}
    plain = begun("picture", SITE, made)
    assert plain.layout_under == () and plan(SITE, plain, ALL).under == {}


def test_a_history_says_under_which_conditions():
    before, after = (
        Version(banner(**under), {}) for under in ({}, {"dark": {"C": {"strength": 1}}})
    )
    assert differences(before, after) == ("Strength of the scrim of span C in the dark",)


@pytest.mark.parametrize(
    ("layout", "said"),
    [
        ({"dark": {"C": {"shows": "below"}}}, "Where words show cannot be another in the dark"),
        ({"dark": {"C": {"mood": 1}}}, "Mood cannot be another in the dark"),
    ],
)
def test_only_colours_can_be_others(layout, said):
    with pytest.raises(InvalidPlan, match=said) as refused:
        plan(SITE, banner(**layout), ALL)
    assert refused.value.field.startswith("layout_under.0.layout.C.")


def test_a_set_of_conditions_stands_once_and_a_colour_is_one():
    twice = banner(dark={}).model_copy(
        update={"layout_under": (m.LayoutUnder(when=("dark",)), m.LayoutUnder(when=("dark",)))}
    )
    with pytest.raises(InvalidPlan, match="What holds in the dark is there twice"):
        plan(SITE, twice, ALL)
    with pytest.raises(InvalidPlan, match="colour") as refused:
        plan(SITE, banner(dark={"C": {"colour": "night"}}), ALL)
    assert refused.value.field == "layout_under.0.layout.C.colour"


def test_what_the_dark_drops_is_seen_upright_where_another_one_shows_there():
    """Dark shows nothing on narrow screens, dark in portrait shows a picture: folded, that is a
    variant over nothing, which says so in that span (rules §14)."""
    first = {"C": m.Treatment(original=1, height=m.RatioHeight(w=3, h=2))}
    parts = (
        m.Part(key="a", treatments=first),
        m.Part(of="a", when=("dark",), treatments={"A": m.Treatment(show="nothing")}),
        m.Part(of="a", when=("dark", "portrait"), treatments={"A": m.Treatment(fit="contain")}),
    )
    made = m.Placement(name="Quay", parts=parts)
    conditions = m.Conditions(dark=True)
    whole = text_of(pane_lines(plan(SITE, made, ALL), address))
    seen = text_of(
        pane_lines(plan(SITE, placement_seen(SITE, made, ALL, conditions), ALL), address)
    )
    for upright in (False, True):
        wanted = pick(whole, environment(conditions, 400, upright)).url
        assert pick(seen, environment(m.AS_USUAL, 400, upright)).url == wanted
        assert (wanted == "/1/whole") == upright


@pytest.mark.parametrize("says", [None, "picture"])
def test_over_nothing_a_variant_shows_only_where_it_says_so(says):
    first = {"C": m.Treatment(original=1), "A": m.Treatment(show="nothing")}
    night = {"C": m.Treatment(original=2), "A": m.Treatment(show=says, fit="contain")}
    parts = (m.Part(key="a", treatments=first), m.Part(of="a", when=("dark",), treatments=night))
    variant = plan(SITE, m.Placement(name="Quay", parts=parts), ALL).parts[1]
    assert variant.usual == (frozenset() if says else frozenset("A"))
