"""Links that ask for the first picture early: on every screen at most one of them holds, and it
offers the file that the picture takes (HTML Standard §4.6.8.17)."""

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st
from selectolax.lexbor import LexborHTMLParser
from skypane.files.renditions import renditions
from skypane.handover import asked_for, blueprint
from skypane.layouts import begun
from skypane.markup.css import css_lines
from skypane.markup.html import html_of
from skypane.markup.lines import text_of
from skypane.markup.outputs import written_as
from skypane.markup.picture import placement_lines
from skypane.markup.preload import preload_links
from skypane.model import (
    FEATURES,
    FixedWidth,
    HandOver,
    Original,
    Part,
    Placement,
    RatioHeight,
    Site,
    Treatment,
)
from skypane.picks import Environment, pick
from skypane.picks.background import pick_background, read_background
from skypane.picks.media import media_matches
from skypane.shown.plan import plan

ORIGINALS = {
    i: Original(id=i, name=f"{i}.jpg", width_px=6000, height_px=4000, sha256=str(i), alt="A quay")
    for i in (1, 2, 3)
}
WANTED = HandOver(preload=True)


def links(found):
    text = text_of(html_of().lines(preload_links(found, renditions(found))))
    return LexborHTMLParser(text).css("link")


def holding(found, env):
    """The links that a browser follows in an environment, and what it takes of them."""
    out = []
    for link in links(found):
        a = link.attributes
        if media_matches(a.get("media") or "", env) and a["type"] in env.taken_types:
            sizes = f' sizes="{a["imagesizes"]}"' if "imagesizes" in a else ""
            out.append(pick(f'<img srcset="{a["imagesrcset"]}"{sizes}>', env).url)
    return out


@st.composite
def leads(draw):
    shows = st.builds(
        Treatment,
        original=st.sampled_from([None, 1, 2, 3]),
        show=st.sampled_from([None, None, "nothing", "colour"]),
        height=st.sampled_from([None, RatioHeight(w=3, h=1)]),
        width=st.sampled_from([None, FixedWidth(width_px=300)]),
    )
    usual = {**draw(st.dictionaries(st.sampled_from("ABC"), shows)), "D": Treatment(original=1)}
    sets = st.sets(st.sampled_from(FEATURES), min_size=1).map(
        lambda s: tuple(f for f in FEATURES if f in s)
    )
    whens = draw(st.lists(sets, max_size=3, unique=True))
    others = [
        Part(of="quay", when=w, treatments=draw(st.dictionaries(st.sampled_from("ABCD"), shows)))
        for w in whens
    ]
    way = draw(st.sampled_from([None, "background"]))
    parts = (Part(key="quay", treatments=usual, way=way), *others)
    site = Site(
        media_style=draw(st.sampled_from(["max-width", "min-width", "range"])),
        lists=draw(st.sampled_from(["widths", "densities", "fitting"])),
        hand_over=WANTED,
    )
    return plan(site, Placement(name="Quay", parts=parts), ORIGINALS)


@given(
    leads(),
    st.one_of(st.integers(320, 2560), st.sampled_from([599.5, 1023.25, 1599.75])),
    st.sampled_from([1, 2]),
    st.sets(st.sampled_from(FEATURES)),
)
def test_what_is_asked_for_early_is_what_is_taken_and_nothing_else(found, width, density, features):
    env = Environment(
        width,
        width + 1 if "portrait" in features else width - 1,
        density,
        "dark" if "dark" in features else "light",
        "reduce" if "still" in features else "no-preference",
    )
    files = renditions(found)
    if found.parts[0].part.way == "background":
        rules = read_background(text_of(css_lines(found, files)), ".quay::before")
        taken = pick_background(rules, env).url
    else:
        markup = text_of(placement_lines(found, files))
        taken = pick(markup, env).url if markup else None
    is_blank = taken is None or taken.startswith("data:")
    assert holding(found, env) == ([] if is_blank else [taken])


def test_who_does_not_know_the_newest_type_asks_for_nothing_early():
    found = plan(Site(hand_over=WANTED), picture(), ORIGINALS)
    env = Environment(1280, 800, types=frozenset({"image/webp", "image/jpeg"}))
    assert links(found) and holding(found, env) == []


def picture(**values):
    return Placement(name="Quay", parts=(Part(treatments={"D": Treatment(original=1)}),), **values)


@pytest.mark.parametrize(
    ("placement", "site"),
    [
        (picture(lead=False), Site(hand_over=WANTED)),
        (picture(), Site()),
        (begun("grid", Site(), picture()), Site(hand_over=WANTED)),
        (Placement(name="Quay"), Site(hand_over=WANTED)),
    ],
)
def test_only_the_one_picture_of_a_lead_is_asked_for_and_where_that_is_wanted(placement, site):
    assert links(plan(site, placement, ORIGINALS)) == []


def test_a_page_asks_for_one_lead_alone_in_its_head():
    asked = asked_for(Site(hand_over=WANTED), picture(), ORIGINALS.values())
    pages = (asked.pages[0].model_copy(update={"placements": (picture(), picture(title_level=3))}),)
    for scope, name in (("placement", "page.html"), ("page", "page.html")):
        of = (
            asked
            if scope == "placement"
            else asked.model_copy(update={"pages": pages, "scope": scope})
        )
        texts = blueprint(of).texts
        head = LexborHTMLParser(texts[name]).head
        assert len(head.css('link[rel="preload"][as="image"]')) == len(
            links(plan(of.site, picture(), ORIGINALS))
        )
    texts = blueprint(asked).texts
    assert texts["snippet-head.html"].startswith('<link rel="preload" as="image"')


def test_conditions_of_links_are_those_of_the_sources_without_those_before():
    found = plan(
        Site(hand_over=WANTED, breakpoints=(599,)),
        Placement(
            name="Quay",
            parts=(
                Part(
                    key="quay",
                    treatments={
                        "B": Treatment(original=1, height=RatioHeight(w=2, h=1)),
                        "A": Treatment(height=RatioHeight(w=1, h=1)),
                    },
                ),
                Part(of="quay", when=("dark",), treatments={"B": Treatment(original=2)}),
            ),
        ),
        ORIGINALS,
    )
    dark = "(prefers-color-scheme: dark)"
    said = [link.attributes["media"] for link in links(found)]
    assert said == [
        f"(max-width: 599px) and {dark}",
        f"(max-width: 599px) and (not {dark})",
        f"(not (max-width: 599px)) and {dark}",
        f"(not (max-width: 599px)) and (not {dark})",
    ]
    assert all(a != b for a, b in itertools.combinations(said, 2))


def test_a_component_asks_early_itself():
    """HTML Standard §4.6.8: `preload` may stand in the body; attributes are named as React has
    them."""
    found = plan(Site(hand_over=WANTED), picture(), ORIGINALS)
    component = text_of(written_as(found, renditions(found), "jsx")[0].lines)
    assert "    <>\n" in component and '<link rel="preload" as="image"' in component
    assert "imageSrcSet=" in component and 'fetchPriority="high"' in component
    assert "imagesrcset" not in component
