"""The picture element and its CSS (HTML Standard §4.8; rules §4, §6, §11)."""

import json
import re

import pytest
import tinycss2
from planned import by_density, delivered, own, treated
from selectolax.lexbor import LexborHTMLParser
from skypane.files.renditions import renditions
from skypane.geometry import Rect
from skypane.handover import FileFacts, finish
from skypane.markup.css import css_lines
from skypane.markup.css_rule import CssRule, holds_in
from skypane.markup.lines import text_of
from skypane.markup.page import page_html
from skypane.markup.picture import placement_lines
from skypane.model import (
    Area,
    FixedAim,
    FixedHeight,
    Following,
    FullWidth,
    Original,
    Part,
    Placement,
    RatioHeight,
    ShareWidth,
    Treatment,
    ViewportHeight,
    picture,
)
from skypane.picks import Environment, pick
from skypane.picks.choose import wins
from skypane.picks.media import media_matches
from skypane.shown.plan import plan

WIDE = Original(
    id=1,
    name="wide.jpg",
    width_px=5200,
    height_px=2900,
    sha256="w",
    focal=(0.74, 0.5),
    alt='A "lighthouse" & sea',
)
TALL = Original(id=2, name="tall.jpg", width_px=2900, height_px=4300, sha256="t")
ORIGINALS = {1: WIDE, 2: TALL}
FOUR = picture(
    name="Lighthouse",
    treatments={
        "D": Treatment(original=1, height=RatioHeight(w=2.4, h=1)),
        "C": Treatment(height=RatioHeight(w=2, h=1)),
        "B": Treatment(height=RatioHeight(w=3, h=2)),
        "A": Treatment(original=2, height=RatioHeight(w=4, h=5)),
    },
)


def markup(site, placement=FOUR, originals=ORIGINALS):
    computed = plan(site, placement, originals)
    return text_of(placement_lines(computed, renditions(computed)))


def css(placement, site=None, originals=ORIGINALS, whole=False):
    return text_of(css_lines(plan(site or by_density(), placement, originals), whole=whole))


@pytest.mark.parametrize("style", ["max-width", "min-width", "range"])
def test_every_width_and_density_takes_its_own_file(style):
    site = by_density(media_style=style)
    text = markup(site)
    for width, stem in [
        (320, "--a"),
        (599, "--a"),
        (600, "--b"),
        (1023, "--b"),
        (1024, "--c"),
        (1599, "--c"),
        (1600, ""),
        (2560, ""),
    ]:
        for density, mark in [(1, ""), (2, "@2x")]:
            assert (
                pick(text, Environment(width, 800, density)).url
                == f"images/lighthouse{stem}{mark}.avif"
            )


@pytest.mark.parametrize("style", ["max-width", "min-width", "range"])
def test_no_source_is_unreachable(style):
    found = wins(
        markup(by_density(media_style=style)),
        Environment(1, 800, types=frozenset({"image/jpeg"})),
        range(320, 2561, 7),
    )
    jpeg = [w for w in found if w.runs]
    assert len(jpeg) == 4  # one per span; the others wait for browsers with newer formats


def test_every_source_lists_all_densities_its_type_and_size():
    tree = LexborHTMLParser(markup(by_density()))
    sources = tree.css("source")
    assert len(sources) == 11
    for node in [*sources, *tree.css("img")]:
        a = node.attributes
        assert re.search(r"[^ ]+, [^ ]+@2x\.\w+ 2x$", a["srcset"])
        assert int(a["width"]) > 0 and int(a["height"]) > 0
    assert [s.attributes["type"] for s in sources[:3]] == ["image/avif", "image/webp", "image/jpeg"]
    assert (sources[0].attributes["width"], sources[0].attributes["height"]) == ("599", "749")


def test_the_img_carries_alt_size_and_loading():
    a = LexborHTMLParser(markup(by_density())).css_first("img").attributes
    assert (a["alt"], a["loading"], a["fetchpriority"]) == ('A "lighthouse" & sea', "eager", "high")
    assert a["src"] == "images/lighthouse.jpg"
    lazy = (
        LexborHTMLParser(markup(by_density(), FOUR.model_copy(update={"lead": False})))
        .css_first("img")
        .attributes
    )
    assert lazy["loading"] == "lazy" and "fetchpriority" not in lazy


def test_the_placement_s_own_alt_text_comes_first():
    decorative = picture(name=FOUR.name, treatments=own(FOUR), alt="")
    assert (
        LexborHTMLParser(markup(by_density(), decorative)).css_first("img").attributes["alt"] == ""
    )


@pytest.mark.parametrize(
    ("style", "order"), [("max-width", "DCBA"), ("min-width", "ABCD"), ("range", "DCBA")]
)
def test_css_blocks_are_ordered_so_that_later_ones_win(style, order):
    lines = css_lines(plan(by_density(media_style=style), FOUR, ORIGINALS))
    posts = [int(re.search(r"\d+", x.text)[0]) for x in lines if x.text.startswith("@media")]
    assert posts == sorted(posts, reverse=style != "min-width") and len(posts) == 3
    # a line bears the letters of all spans in which it still holds; the last block has one alone
    blocks = [line.spans for line in lines if line.text.startswith("@media")]
    assert blocks[-1] == (order[-1],)
    assert all(set(order[i:]) >= set(spans) for i, spans in enumerate(blocks, 1))


def test_a_rule_bears_the_letters_of_all_spans_that_it_holds_in():
    """CSS Cascade 5 §6: a declaration holds until a later one of the same name overrides it."""
    first = CssRule((".quay",), ("color: red;", "width: 1px;"))
    again = CssRule((".quay",), ("color: blue;",))
    in_the_dark = first._replace(media="(prefers-color-scheme: dark)")
    found = holds_in([[first], [again, in_the_dark], [first]], "CBA")
    # the first still says the width in B; all of it is said anew in A
    assert found == [[("B", "C")], [("B",), ("A", "B")], [("A",)]]
    assert holds_in([[first], [], []], "CBA") == [[()], [], []]


def test_css_parses_and_says_only_what_changes():
    text = css(FOUR)
    rules = tinycss2.parse_stylesheet(text, skip_comments=True, skip_whitespace=True)
    assert [r.type for r in rules] == [
        "qualified-rule",
        "qualified-rule",
        "at-rule",
        "at-rule",
        "at-rule",
    ]
    assert text.count("object-fit") == 1 and text.count("width: 100%") == 2
    # one ratio per span needs no lengths
    assert "container-type" not in text and "var(" not in text


def test_a_cut_of_one_ratio_needs_no_position():
    assert "object-position: 50% 50%" in css(FOUR)


def test_whole_pictures_of_one_ratio_are_held_by_a_percentage():
    share = 2900 / 5200  # of the width, in a square
    left = {"focal": (0.4, 0.5)}
    p = picture(
        name="p", treatments={"D": Treatment(original=1, height=RatioHeight(w=1, h=1), whole=True)}
    )
    # rules §4, from the focal point to the percentage
    percent = (0.4 - share / 2) / (1 - share) * 100
    assert f"object-position: {percent:.3f}% 50%" in css(
        p, originals={1: WIDE.model_copy(update=left)}
    )
    assert "object-position: 100% 50%" in css(p)  # a focal point near the edge ends at the edge


def test_a_changing_ratio_is_followed_by_a_length_with_a_percentage_before_it():
    text = css(
        picture(
            name="p",
            treatments={
                "D": Treatment(original=1, width=FullWidth(), height=FixedHeight(height_px=900))
            },
        )
    )
    assert "container-type: size" in text
    assert "0.74 * var(--drawn-width)" in text
    positions = re.findall(r"object-position: ([^;]+);", text)
    assert "%" in positions[0] and "cqw" not in positions[0]


def test_fixed_percentages_stay_what_they_are_cut_or_whole():
    t = Treatment(original=1, height=ViewportHeight(percent=60), aim=FixedAim(x=0.2, y=0.9))
    for whole in (False, True):
        assert "object-position: 20% 90%" in css(
            picture(name="p", treatments={"D": t}), whole=whole
        )


def test_only_areas_that_bind_are_written():
    areas = (
        Area(name="Tower", rect=Rect(x=0.715, y=0.335, w=0.045, h=0.27)),
        Area(name="Middle", rect=Rect(x=0.72, y=0.4, w=0.01, h=0.1)),
    )
    held = WIDE.model_copy(update={"areas": areas, "focal": (0.5, 0.5)})
    p = picture(
        name="p", treatments={"D": Treatment(original=1, height=FixedHeight(height_px=900))}
    )
    text = css(p, originals={1: held})
    assert "0.76 * var(--drawn-width)" in text and "0.73 *" not in text
    assert "/* held by Tower */" in text
    followed = own(p)["D"].model_copy(update={"aim": Following(areas=False)})
    focal_only = treated(p, {"D": followed})
    assert "0.76 *" not in css(focal_only, originals={1: held})


def test_a_name_cannot_end_the_comment_it_stands_in():
    area = Area(name="x */ body { display: none }", rect=Rect(x=0.715, y=0.335, w=0.045, h=0.27))
    held = WIDE.model_copy(update={"areas": (area,), "focal": (0.5, 0.5)})
    text = css(
        picture(
            name="p", treatments={"D": Treatment(original=1, height=FixedHeight(height_px=900))}
        ),
        originals={1: held},
    )
    rules = tinycss2.parse_stylesheet(text, skip_comments=True, skip_whitespace=True)
    assert all("body" not in tinycss2.serialize(r.prelude) for r in rules)


def test_the_page_is_complete_and_safe():
    page = page_html("<b>&", ["<picture></picture>\n"])
    assert page.startswith("<!DOCTYPE html>") and "<title>&lt;b&gt;&amp;</title>" in page
    assert 'href="picture.css"' in page


def test_without_a_picture_there_is_nothing_to_hand_over():
    assert markup(by_density(), picture(name="empty")) == ""


def test_the_manifest_lists_every_file_with_its_crop_and_hash():
    found = delivered(by_density(), FOUR, ORIGINALS)
    sizes = {"avif": 1234, "webp": 2000, "jpeg": 3000}
    facts = {f.key: FileFacts(sizes[f.format], "ab" * 32, 60, 0.956) for f in found.files}
    manifest = json.loads(finish(found, facts).texts["manifest.json"])
    assert len(manifest["files"]) == 24
    first = manifest["files"][0]
    assert (
        first["name"] == "images/lighthouse--a.avif"
        and first["bytes"] == 1234
        and first["sha256"] == "ab" * 32
    )
    assert first["crop"]["w"] / first["crop"]["h"] == pytest.approx(0.8, abs=0.001)


def test_percentages_serve_browsers_without_container_units():
    """A declaration with var() is valid while it is read, so an earlier one would be no fallback
    (CSS Variables 1, §3.1): the lengths stand in @supports, the percentage outside of it, and at
    every change both are said again."""
    p = picture(
        name="p",
        treatments={
            "D": Treatment(original=1, height=FixedHeight(height_px=700)),
            "B": Treatment(height=RatioHeight(w=1, h=1)),
            "A": Treatment(height=FixedHeight(height_px=600)),
        },
    )
    text = css(p)
    sheet = tinycss2.parse_stylesheet(text, skip_whitespace=True, skip_comments=True)
    rules = [r for r in sheet if r.type == "qualified-rule"]
    assert not any(
        "var(" in tinycss2.serialize(r.content) or "cqw" in tinycss2.serialize(r.content)
        for r in rules
    )
    supports = [r for r in sheet if r.type == "at-rule" and r.at_keyword == "supports"]
    assert len(supports) == 1 and "(width: 1cqw)" in tinycss2.serialize(supports[0].prelude)
    b = text[text.index("(max-width: 1023px)") : text.index("(max-width: 599px)")]
    # a plain percentage takes the length's place
    assert "object-position: " in b and "@supports" not in b
    a = text[text.index("(max-width: 599px)") :]
    assert a.index("object-position") < a.index("@supports") < a.rindex("object-position")


def test_a_frame_narrower_than_the_page_stands_in_the_middle():
    t = Treatment(original=1, width=ShareWidth(percent=50))
    assert "margin-inline: auto;" in css(picture(name="p", treatments={"D": t}))
    end = t.model_copy(update={"stands": "end"})
    assert "margin-inline: auto 0px;" in css(picture(name="p", treatments={"D": end}))
    inside = Treatment(original=1, width=ShareWidth(percent=50, of="container"), stands="start")
    assert "margin-inline: max(20px, (100% - 1080px) / 2) auto;" in css(
        picture(name="p", treatments={"D": inside})
    )
    assert "margin-inline" not in css(FOUR)  # full width has nowhere else to stand


def test_where_one_lets_the_part_itself_show_another_that_holds_as_well_is_seen():
    """Rules §14: of the variants that hold *and set something to show* one wins. Dark says
    something in A alone: in B, where it stands first among equals, portrait shows."""
    usual = {"B": Treatment(original=1, height=RatioHeight(w=2, h=1))}
    square = Treatment(original=1, height=RatioHeight(w=1, h=1))
    flat = Treatment(original=1, height=RatioHeight(w=4, h=1))
    parts = (
        Part(key="quay", treatments=usual),
        Part(of="quay", when=("dark",), treatments={"A": flat}),
        Part(of="quay", when=("portrait",), treatments={"B": square}),
    )
    found = plan(by_density(breakpoints=(599,)), Placement(name="Quay", parts=parts), {1: WIDE})
    rules = cascade_of(text_of(css_lines(found)), ".quay", ".quay.quay", "aspect-ratio")
    for width, dark, upright, ratio in (
        (800, False, False, "2 / 1"),
        (800, True, False, "2 / 1"),
        (800, False, True, "1 / 1"),
        (800, True, True, "1 / 1"),
        (500, True, True, "4 / 1"),
        (500, False, True, "1 / 1"),
        (500, True, False, "4 / 1"),
        (500, False, False, "2 / 1"),
    ):
        height = width + 1 if upright else width - 1
        env = Environment(width, height, 1, "dark" if dark else "light")
        assert rules(env) == ratio, (width, dark, upright)


def cascade_of(css, *selectors_and_name):
    """What holds of one property, by the cascade of a style sheet: later selectors count for more
    (CSS Cascade 5 §6.1)."""
    *selectors, name = selectors_and_name
    found = []

    def walk(nodes, media):
        for node in nodes:
            inner = tinycss2.parse_blocks_contents(
                node.content, skip_comments=True, skip_whitespace=True
            )
            prelude = tinycss2.serialize(node.prelude).strip()
            if node.type == "at-rule":
                walk(inner, (*media, prelude) if node.at_keyword == "media" else media)
            elif prelude in selectors:
                for d in inner:
                    if d.type == "declaration" and d.lower_name == name:
                        value = tinycss2.serialize(d.value).strip()
                        found.append((selectors.index(prelude), media, value))

    walk(tinycss2.parse_stylesheet(css, skip_comments=True, skip_whitespace=True), ())

    def holds(env):
        there = [(at, v) for at, media, v in found if all(media_matches(m, env) for m in media)]
        most = max(at for at, _ in there)
        return [v for at, v in there if at == most][-1]

    return holds
