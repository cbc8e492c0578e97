"""In which way a part is written; and backgrounds: each file just where it suffices (rules §15)."""

import itertools
import re

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from selectolax.lexbor import LexborHTMLParser
from skypane.files.groups import drawn_widths
from skypane.files.renditions import by_letter, by_part, renditions
from skypane.layouts import begun
from skypane.markup.background import SLACK_PX, runs_of_span
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.outputs import written_as
from skypane.markup.picture import placement_lines
from skypane.markup.ways import written_way
from skypane.model import (
    FEATURES,
    FixedWidth,
    Following,
    HandOver,
    Original,
    Part,
    Placement,
    RatioHeight,
    ShareWidth,
    Site,
    Treatment,
    ViewportHeight,
    Words,
)
from skypane.picks import Environment
from skypane.picks.background import pick_background, read_background
from skypane.shown.nouns import ShownSpan
from skypane.shown.plan import plan

CAMERA = Original(id=1, name="quay.jpg", width_px=6000, height_px=4000, sha256="q", alt="A quay")
NIGHT = Original(id=2, name="night.jpg", width_px=4000, height_px=3000, sha256="n", alt="")
DRAWING = Original(
    id=3, name="tern.svg", width_px=300, height_px=200, sha256="d", alt="", medium="drawing"
)
ORIGINALS = {o.id: o for o in (CAMERA, NIGHT, DRAWING)}
STEADY = {"D": Treatment(original=1, width=FixedWidth(width_px=400), height=RatioHeight(w=3, h=2))}


def quay(treatments=None, *more, way=None, kind="picture"):
    part = Part(key="quay", treatments=treatments or STEADY, way=way)
    made = Placement(name="Quay", parts=(part, *more))
    return begun(kind, Site(), made) if kind != "picture" else made


def computed(placement, **site):
    return plan(Site(**site), placement, ORIGINALS)


def way_of(found):
    of = by_part(renditions(found))
    return written_way(found, found.parts[0], of.get(0, ()))


@pytest.mark.parametrize(
    ("placement", "site", "way", "why"),
    [
        (quay(), {"formats": ("jpeg",)}, "img", "One crop in one format"),
        (quay({"D": Treatment(original=3)}), {}, "img", "One crop in one format"),
        (quay(), {}, "picture", "it comes as AVIF and WebP and JPEG"),
        (
            quay({**STEADY, "A": Treatment(height=RatioHeight(w=1, h=1))}),
            {"formats": ("jpeg",)},
            "picture",
            "cut otherwise in some spans",
        ),
        (
            quay({**STEADY, "A": Treatment(show="nothing")}),
            {"formats": ("jpeg",)},
            "picture",
            "not every span",
        ),
        (
            quay(STEADY, Part(of="quay", when=("dark",), treatments={"D": Treatment(original=2)})),
            {"formats": ("jpeg",)},
            "picture",
            "in the dark",
        ),
        (quay(way="background"), {}, "background", "decoration"),
        (quay(way="picture"), {"formats": ("jpeg",)}, "picture", "An img alone would do"),
        (quay(way="img"), {}, "picture", "it comes as"),
        (quay(way="background", kind="grid"), {}, "picture", "laid out with others"),
    ],
)
def test_the_way_is_the_least_that_says_it_all(placement, site, way, why):
    found = way_of(computed(placement, **site))
    assert (found.way, why in found.why) == (way, True), found


def test_an_img_alone_is_the_frame_itself():
    """No element around it: what the frame declares and how the picture fills it are one rule."""
    found = computed(quay(), formats=("jpeg",))
    html = text_of(placement_lines(found, renditions(found)))
    (img,) = LexborHTMLParser(html).body.iter()
    assert img.tag == "img" and img.attributes["class"] == "quay"
    assert "srcset" in img.attributes and img.attributes["alt"] == "A quay"
    css = text_of(css_lines(found, renditions(found)))
    assert "aspect-ratio: 3 / 2;" in css and "object-fit: cover;" in css
    assert ".quay img" not in css and " position:" not in css.replace("object-position", "")


def test_a_background_is_an_element_without_a_word_of_its_files():
    found = computed(quay(way="background"))
    html = text_of(placement_lines(found, renditions(found)))
    assert html == '<div class="quay"></div>\n'
    css = text_of(css_lines(found, renditions(found)))
    assert "background-size: cover;" in css and "background-repeat: no-repeat;" in css
    # browsers that do not know type() have the plain file before it
    assert css.index('url("images/quay.jpg");') < css.index("image-set(")
    assert css.index("image/avif") < css.index("image/webp") < css.index("image/jpeg")


LADDER = {"D": Treatment(original=1, height=RatioHeight(w=16, h=9))}


@pytest.mark.parametrize("style", ["max-width", "min-width", "range"])
def test_each_file_is_taken_just_where_it_suffices(style):
    """At each threshold, one px before it and one after, at the densities offered: the least file
    that has the px drawn, else the greatest (rules §15)."""
    found = computed(quay(LADDER, way="background"), media_style=style, lists="widths")
    files = renditions(found)
    letters = by_letter(files)
    rules = read_background(text_of(css_lines(found, files)), ".quay::before")
    asked = set()
    for p in found.parts[0].spans:
        for run in runs_of_span(p, letters[p.span.letter], (1.0, 2.0)):
            asked |= {run.first - 1, run.first, run.first + 1, run.last}
    asked = {w for w in asked if 320 <= w <= 2560}
    assert len(asked) > 20
    for width, density in itertools.product(sorted(asked), (1, 2)):
        p = next(p for p in found.parts[0].spans if p.span.first <= width <= p.span.last)
        need = float(drawn_widths(p)[width - p.span.first]) * density
        webp = sorted(
            (f for f in letters[p.span.letter] if f.format == "webp"), key=lambda f: f.width_px
        )
        least = next((f for f in webp if f.width_px >= need - SLACK_PX), webp[-1])
        env = Environment(width, 800, density, types=frozenset({"image/webp", "image/jpeg"}))
        assert pick_background(rules, env).url == f"images/{least.name}", (width, density)


@st.composite
def backgrounds(draw):
    def treatment():
        return Treatment(
            original=draw(st.sampled_from([None, 1, 2])),
            show=draw(st.sampled_from([None, None, "nothing", "colour", "picture"])),
            height=draw(st.sampled_from([None, RatioHeight(w=4, h=1), ViewportHeight(percent=70)])),
            width=draw(st.sampled_from([None, ShareWidth(percent=50), FixedWidth(width_px=300)])),
            aim=draw(st.sampled_from([None, Following()])),
        )

    whens = draw(
        st.lists(
            st.sets(st.sampled_from(FEATURES), min_size=1).map(
                lambda s: tuple(f for f in FEATURES if f in s)
            ),
            max_size=3,
            unique=True,
        )
    )
    own = {**{x: treatment() for x in draw(st.sets(st.sampled_from("ABC")))}, "D": LADDER["D"]}
    others = [
        Part(
            of="quay",
            when=when,
            treatments={x: treatment() for x in draw(st.sets(st.sampled_from("ABCD")))},
        )
        for when in whens
    ]
    site = {
        "media_style": draw(st.sampled_from(["max-width", "min-width", "range"])),
        "lists": draw(st.sampled_from(["widths", "densities", "fitting"])),
    }
    return quay(own, *others, way="background"), site


@given(
    backgrounds(),
    st.integers(320, 2560),
    st.sampled_from([1, 2]),
    st.sets(st.sampled_from(FEATURES)),
)
def test_under_all_conditions_the_part_that_shows_is_fetched_and_no_other(
    made, width, density, features
):
    placement, site = made
    found = computed(placement, **site)
    files = renditions(found)
    rules = read_background(text_of(css_lines(found, files)), ".quay::before")
    env = Environment(
        width,
        width + 1 if "portrait" in features else width - 1,
        density,
        "dark" if "dark" in features else "light",
        "reduce" if "still" in features else "no-preference",
    )
    usual = found.parts[0]
    at = next(i for i, p in enumerate(usual.spans) if p.span.first <= width <= p.span.last)
    letter = usual.spans[at].span.letter
    shows = next(
        (
            o
            for o in found.alternatives(usual)
            if set(o.part.when) <= features and letter not in o.usual
        ),
        usual,
    )
    p, mine = shows.spans[at], by_letter(by_part(files).get(shows.index, ())).get(letter, ())
    got = pick_background(rules, env).url
    if not isinstance(p, ShownSpan) or not mine:
        assert got is None
        return
    best = sorted((f for f in mine if f.format == mine[0].format), key=lambda f: f.width_px)
    if mine[0].density is None:
        need = float(drawn_widths(p)[width - p.span.first]) * density
        least = next((f for f in best if f.width_px >= need - SLACK_PX), best[-1])
    else:
        least = next((f for f in best if f.density >= density), best[-1])
    assert got == f"images/{least.name}"


def test_the_position_of_a_background_is_that_of_the_picture():
    """CSS Backgrounds 3 §3.6 and CSS Images 3 §5.6 place alike: only the names differ."""
    treatments = {"D": Treatment(original=1, height=ViewportHeight(percent=60), aim=Following())}
    as_background = computed(quay(treatments, way="background"))
    as_picture = computed(quay(treatments, way="picture"))
    texts = [text_of(css_lines(x, renditions(x))) for x in (as_background, as_picture)]
    values = [re.findall(r"(?:object|background)-position: ([^;]+);", text) for text in texts]
    assert values[0] == values[1] != []
    drawn = [re.findall(r"--drawn-\w+: [^;]+;", text) for text in texts]
    assert drawn[0] == drawn[1] != []


def test_one_density_alone_needs_no_image_set():
    small = Original(id=1, name="small.png", width_px=300, height_px=200, sha256="s", alt="")
    found = plan(Site(formats=("jpeg",)), quay(way="background"), {1: small})
    css = text_of(css_lines(found, renditions(found)))
    assert "image-set" not in css and 'url("images/quay.jpg")' in css


def test_what_a_placement_waits_for_is_no_background_yet():
    found = computed(quay({"D": Treatment(show="picture")}, way="background"))
    assert placement_lines(found, renditions(found)) == ()
    assert 'url("images' not in text_of(css_lines(found, renditions(found)))


def test_files_of_a_background_are_where_the_site_says():
    site = {"hand_over": HandOver(prefix="/static/pictures/")}
    banner = quay(LADDER, way="background", kind="banner")
    found = computed(banner.model_copy(update={"words": Words(heading="Quay")}), **site)
    for output in ("html", "jsx", "django"):
        _, sheet = written_as(found, renditions(found), output)
        text = text_of(sheet.lines)
        assert 'url("/static/pictures/quay' in text and 'url("images/' not in text


def test_runs_are_as_few_as_there_are_changes():
    found = computed(quay(LADDER, way="background"), lists="widths")
    of = by_letter(renditions(found))
    for p in found.parts[0].spans:
        runs = runs_of_span(p, of[p.span.letter], (1.0, 2.0))
        assert (runs[0].first, runs[-1].last) == (p.span.first, p.span.last)
        assert all(
            a.last + 1 == b.first and a.files != b.files for a, b in itertools.pairwise(runs)
        )
        assert np.all([len(r.files) == 3 for r in runs])
