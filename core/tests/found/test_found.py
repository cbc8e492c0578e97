"""Widths found in what a site already has: CSS, design tokens, tables."""

import json
import re
from importlib.util import find_spec
from pathlib import Path

import pytest
import skypane.found.css as css_module
from hypothesis import given
from hypothesis import strategies as st
from skypane.errors import InvalidPlan
from skypane.files.audience import audience_csv, audience_of
from skypane.found import (
    Chosen,
    NothingFound,
    found_in,
    found_in_css,
    found_in_table,
    found_in_tokens,
    taken,
)
from skypane.found.table import widths_csv
from skypane.model import USUAL_AUDIENCE, ColumnsWidth, Container, FrameValues, Site
from skypane.tables import BadTable


def found(text, what):
    return [(w.px, w.count) for w in found_in(text).widths if w.what == what]


# Media Queries 4, §2.4 and §4.1: the same span in every way of writing it
@pytest.mark.parametrize(
    ("query", "posts"),
    [
        ("(max-width: 599px)", [599]),
        ("(min-width: 600px)", [599]),
        ("(width < 600px)", [599]),
        ("(width <= 599px)", [599]),
        ("(width >= 600px)", [599]),
        ("(width > 599px)", [599]),
        ("(600px > width)", [599]),
        ("(599px < width)", [599]),
        ("(400px <= width < 600px)", [399, 599]),
        ("(max-width: 599.98px)", [599]),
        ("(min-width: 37.5em)", [599]),
        ("(min-width:37.5rem) and (max-width:64em)", [599, 1024]),
        ("screen and (min-width: 600px), print", [599]),
        ("not all and (max-width: 599px)", [599]),
        ("(min-width: var(--bp))", [599]),
        ("(min-height: 600px)", []),
        ("(prefers-color-scheme: dark)", []),
        ("(min-width: 600)", []),
        ("(orientation: landscape) and (min-width: 50%)", []),
    ],
)
def test_a_breakpoint_is_the_last_width_of_a_span(query, posts):
    css = f":root {{ --bp: 600px; max-width: 900px }} @media {query} {{ a {{ color: red }} }}"
    assert sorted(px for px, _ in found(css, "breakpoint")) == posts


def test_greatest_widths_gutters_margins_and_columns():
    css = """
    :root { --wide: 70rem; --gap: 20px }
    .page { max-width: var(--wide); padding: 0 24px; margin: auto }
    .inner { width: min(100% - 2rem, 1080px); padding-inline: 16px }
    .fluid { width: clamp(320px, 80%, 1200px) }
    .icon { max-width: 48px }
    .none { max-width: none }
    @layer grid { @media (min-width: 600px) {
      .cards { display: grid; grid-template-columns: repeat(3, 1fr); gap: 30px var(--gap);
        & .card { column-gap: 20px } }
    } }
    """
    assert sorted(found(css, "container")) == [(1080, 1), (1120, 1), (1200, 1)]
    assert found(css, "gutter") == [(20, 2)]
    assert sorted(found(css, "margin")) == [(16, 1), (24, 1)]
    assert found(css, "columns") == [(3, 1)]
    assert found_in(css).widths[0].where == "@media (min-width: 600px)"


def test_the_most_frequent_comes_first():
    css = "@media (max-width: 400px) { a {} } " + "@media (max-width: 900px) { a {} } " * 3
    assert found(css, "breakpoint") == [(900, 3), (400, 1)]


def test_a_real_stylesheet():
    """That of Django's admin (BSD licence, from its package): what its queries say by eye."""
    (package,) = find_spec("django").submodule_search_locations
    sheet = Path(package) / "contrib/admin/static/admin/css/responsive.css"
    text = sheet.read_text()
    told = dict(found(text, "breakpoint"))
    assert {1024, 767} <= set(told)
    assert sum(told.values()) == len(re.findall(r"\((?:max|min)-width:", text))


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("", "nothing to read"),
        ("   \n", "nothing to read"),
        ("<html><body>", "No rule of CSS"),
        ("a { color: red }", "In 1 rule of CSS there is no media query"),
        ("x" * 1_000_001, "at most 1 MB"),
        ("{", "no JSON: expecting property name"),
        ('{"a": 1}', "No token"),
        ('{"a": {"$value": "red"}}', "None of the 1 tokens"),
        ('{"a": {"$value": "{b}"}, "b": {"$value": "{a}"}}', "None of the 2 tokens"),
        ("[" * 100_000, "nested too deeply"),
        ("[1, 2]", "an object of groups"),
    ],
)
def test_what_cannot_be_read_is_said_in_a_sentence(text, said):
    with pytest.raises(NothingFound, match=said):
        found_in(text)


CSS_LIKE = st.text("@media(){}:;-min maxwidth0123456789px<>=,/*'", max_size=80)


@given(st.text(max_size=200) | CSS_LIKE)
def test_any_text_is_read_or_refused(text):
    try:
        assert found_in(text).widths
    except (NothingFound, BadTable) as error:
        assert str(error)[-1] in ".?"


def test_nested_rules_end_somewhere():
    css_module.found_in_css("@media (min-width: 600px) {" * 300)
    with pytest.raises(NothingFound):
        found_in_css("a{" * 2000)


# Design Tokens Format Module 2025.10: §8.2 dimension, §6.4 inherited types, §7 aliases
TOKENS = {
    "breakpoint": {
        "$type": "dimension",
        "narrow": {"$value": {"value": 600, "unit": "px"}},
        "wide": {"$value": "64rem"},
        "same": {"$value": "{breakpoint.wide}"},
    },
    "layout": {"gutter": {"$type": "dimension", "$value": {"value": 1.25, "unit": "rem"}}},
    "page": {"max-width": {"$type": "dimension", "$value": "1080px"}},
    "colour": {"$type": "color", "ink": {"$value": "#112233"}},
    "time": {"$type": "duration", "$value": {"value": 200, "unit": "ms"}},
}


def test_dimension_tokens_with_their_paths():
    told = found_in_tokens(json.dumps(TOKENS)).widths
    assert [(w.what, w.px, w.count, w.where) for w in told] == [
        ("breakpoint", 1024, 2, "breakpoint.wide"),
        ("breakpoint", 600, 1, "breakpoint.narrow"),
        ("container", 1080, 1, "page.max-width"),
        ("gutter", 20, 1, "layout.gutter"),
    ]


# -- tables --

ROWS = "what{0}px\nbreakpoint{0}599\ngutter{0}20.5\nbreakpoint{0}599\n"


@pytest.mark.parametrize("separator", [",", ";", "\t"])
@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
def test_tables_as_spreadsheets_write_them(separator, encoding):
    told = found_in_table(ROWS.format(separator).encode(encoding)).widths
    assert [(w.what, w.px, w.count) for w in told] == [("breakpoint", 599, 2), ("gutter", 20.5, 1)]


def test_what_was_found_comes_back_from_its_table():
    first = found_in(json.dumps(TOKENS))
    again = found_in_table(widths_csv(first).encode())
    assert {(w.what, w.px) for w in again.widths} == {(w.what, w.px) for w in first.widths}


@pytest.mark.parametrize(
    ("table", "said"),
    [
        (b"", "empty"),
        (b"width,height\n", "Line 1: there is no column density"),
        (b"width,height,density,weight\n", "has no row"),
        (b"width,height,density,weight\n390,844,two,1", "Line 2, density: .two. is no number"),
        (b"width,height,density,weight\n390,844,,1", "Line 2, density: nothing is said"),
        (b"width,height,density,weight\n390,844,99,1", "Line 2, density: 99 is not between"),
        (b"width,height,density,weight\n390,844,1,-1", "Line 2, weight: -1 is not"),
        (b"390,844,1,-inf", "Line 1, weight: -inf is not between"),
        (b"390,844,1,1\n390,844,1,nan", "Line 2, weight: nan is not between"),
        (b"390,844,1,0\n400,800,1,0", "nobody looks"),
        (b"390,844,1,1\n" * 501, "Line 501: at most 500 rows"),
        (b"0" * 1_000_001, "at most 1 MB"),
    ],
)
def test_an_audience_that_cannot_be_taken_says_line_and_column(table, said):
    with pytest.raises(BadTable, match=said):
        audience_of(table)


def test_the_audience_comes_back_from_its_table():
    assert audience_of(audience_csv(USUAL_AUDIENCE).encode()) == USUAL_AUDIENCE


def test_columns_in_any_order_and_others_beside_them():
    table = "share;weight;density;width;height\nx;1,5;2;390;844\n\n".encode("utf-16")
    (row,) = audience_of(table)
    assert (row.width, row.height, row.density, row.weight) == (390, 844, 2, 1.5)


# -- what is chosen, taken into a site --


def test_what_is_chosen_becomes_the_site_s_own_and_the_rest_stays():
    chosen = [
        Chosen(what="breakpoint", px=899.98),
        Chosen(what="length", px=480),
        Chosen(what="container", px=960),
        Chosen(what="columns", px=4),
        Chosen(what="gutter", px=24),
    ]
    site = Site(budget_bytes=90_000)
    after = taken(site, chosen)
    assert after.breakpoints == (480, 899) and after.budget_bytes == 90_000
    assert after.container == Container(max_width_px=960, margin_px=site.container.margin_px)
    (frame,) = after.frames
    # the form still speaks of four spans
    assert frame.spans == {"D": FrameValues(width=ColumnsWidth(columns=4, gutter_px=24))}
    again = taken(after, chosen)
    assert [f.name for f in again.frames] == ["one of 4 columns", "one of 4 columns-2"]
    assert len({f.id for f in again.frames}) == 2


@pytest.mark.parametrize(
    ("chosen", "said"),
    [
        ([("breakpoint", 9000)], "The breakpoint 9000 lies outside the site's widths"),
        ([("columns", 40)], "at most 24"),
        ([("gutter", 24)], "choose a number of columns too"),
        ([("length", 400 + 7 * i) for i in range(60)], "at most"),
    ],
)
def test_what_no_site_can_have_is_refused_in_words(chosen, said):
    with pytest.raises(InvalidPlan, match=said):
        taken(Site(), [Chosen(what=what, px=px) for what, px in chosen])


def fanned(width, levels=6):
    """Properties each of which names the next one so many times."""
    named = "".join(f"--a{i}:{f'var(--a{i + 1}) ' * width};" for i in range(levels))
    return f":root{{{named}--a{levels}:700px}}a{{max-width:var(--a0)}}"


@pytest.mark.parametrize("width", [12, 40])
def test_properties_that_fan_out_are_not_followed_for_ever(width):
    """800 bytes and 2.6 kB: 12⁶ and 40⁶ values if they were."""
    with pytest.raises(NothingFound, match="name each other so often"):
        found_in(fanned(width))


def test_properties_that_name_others_as_designers_write_them_are_followed():
    (one,) = found_in(fanned(2, 3)).widths[:1]
    assert (one.what, one.px) == ("container", 700)


@pytest.mark.parametrize(
    "text",
    [
        "@media " + "(" * 600 + "min-width:600px" + ")" * 600 + "{a{max-width:900px}}",
        "a{max-width:" + "calc(" * 600 + "9px" + ")" * 600 + "}",
        "a{" * 20_000,
        "[" * 20_000 + "a{max-width:900px}",
        '{"a":' * 20_000,
    ],
    ids=["brackets", "functions", "rules", "lists", "groups"],
)
def test_what_is_nested_deeply_is_read_or_refused(text):
    try:
        assert len(found_in(text).widths) <= 2
    except NothingFound as error:
        assert str(error).endswith((".", "?"))


def many(n):
    return "".join(
        f"@media (min-width:{100 + i % 3000}px){{.a{i}{{max-width:{i % 2000 + 320}px}}}}"
        for i in range(n)
    )


def test_of_thousands_of_widths_the_most_frequent_are_told():
    found = found_in(many(6000) + "@media (min-width:600px){a{}}" * 3)
    assert (found.widths[0].what, found.widths[0].px, found.widths[0].count) == (
        "breakpoint",
        599,
        5,
    )
    assert len(found.widths) == 100 and found.left_out == 3000 + 2000 - 100
    assert len(found.model_dump_json()) < 100_000
