"""The pick and its trace (HTML Standard §4.8.4.3; docs/chromium.md for what was seen)."""

import dataclasses

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from skypane.errors import InvalidPlan
from skypane.picks import Environment, pick
from skypane.picks.choose import chosen_by_width, wins
from skypane.picks.engines import TYPES


def env(width=1000, height=800, density=1.0, **kw):
    return Environment(width, height, density, **kw)


def url(markup, *args, **kw):
    return pick(markup, env(*args, **kw)).url


@pytest.mark.parametrize(
    ("density", "expected"),
    [(1, "1"), (1.001, "2"), (1.2, "2"), (2, "2"), (2.4, "3"), (4, "4"), (8, "4")],
)
def test_the_least_that_suffices_else_the_greatest(density, expected):
    assert url('<img srcset="1 1x, 2 2x, 3 3x, 4 4x">', density=density) == expected


@pytest.mark.parametrize(
    ("density", "expected"),
    [(1.2, "1"), (1.4, "1"), (1.42, "2"), (2, "2"), (2.4, "2"), (2.45, "3")],
)
def test_the_geometric_mean_of_older_chromium(density, expected):
    assert url('<img srcset="1 1x, 2 2x, 3 3x">', density=density, policy="geometric") == expected


@pytest.mark.parametrize(("density", "expected"), [(1, "b"), (1.01, "a")])
def test_older_chromium_never_undershoots_at_1x(density, expected):
    assert url('<img srcset="a .99x, b 10x">', density=density, policy="geometric") == expected


def test_densities_are_32_bit_floats():
    assert url('<img srcset="a 1.999999999x, b 3x">', density=2) == "a"
    assert url('<img srcset="a 1.999999x, b 3x">', density=2) == "b"


def test_w_counts_against_sizes():
    markup = '<img srcset="s 400w, m 800w, l 1600w" sizes="(max-width: 600px) 100vw, 50vw">'
    assert [
        url(markup, w, density=d) for w, d in [(400, 1), (600, 1), (1000, 1), (1000, 2), (2000, 2)]
    ] == [
        "s",
        "m",
        "m",
        "l",
        "l",
    ]
    assert url(markup, 801) == "m"  # one px less than needed is not enough


def test_the_first_of_equal_densities_wins():
    assert url('<img srcset="b 2x, a 1x, c 1x, d 2x">', density=2) == "b"
    assert url('<img srcset="b 2x, a 1x, c 1x, d 2x">') == "a"


def test_a_size_of_zero_takes_the_first_in_the_document():
    found = pick('<img srcset="b 900w, a 100w" sizes="0px">', env())
    assert (found.url, found.density) == ("b", None)


def test_src_joins_as_1x():
    assert url('<img src="s" srcset="b 2x">') == "s"
    assert url('<img src="s" srcset="a 1x, b 2x">') == "a"
    assert url('<img src="s" srcset="b 100w">') == "b"
    assert url('<img src="s" srcset="b 9">') == "s"
    assert url('<img src="s">') == "s"
    assert url("<img>") is None


def test_mixed_w_and_x_keep_their_own_densities():
    assert url('<img src="s" srcset="a 2x, b 1000w" sizes="1000px">') == "b"
    assert url('<img src="s" srcset="a 2x, b 1000w" sizes="1000px">', density=2) == "a"


def test_a_denser_data_url_is_taken():
    assert url('<img srcset="a 1x, data:,x 3x, data:,y 2x">', policy="chromium") == "data:,x"
    assert url('<img srcset="data:,x 1x, a 2x">', density=2) == "a"


# -- picture --

PICTURE = """<picture>
  <source media="(max-width: 599px)" type="image/avif" srcset="a.avif, a@2x.avif 2x">
  <source media="(max-width: 599px)" srcset="a.jpg, a@2x.jpg 2x">
  <source type="image/avif" srcset="d.avif, d@2x.avif 2x">
  <img src="d.jpg" srcset="d.jpg, d@2x.jpg 2x">
</picture>"""


@pytest.mark.parametrize(
    ("width", "density", "types", "expected"),
    [
        (599, 1, TYPES, "a.avif"),
        (599, 2, TYPES, "a@2x.avif"),
        (600, 1, TYPES, "d.avif"),
        (599, 2, TYPES - {"image/avif"}, "a@2x.jpg"),
        (600, 2, TYPES - {"image/avif"}, "d@2x.jpg"),
    ],
)
def test_media_and_type_in_order(width, density, types, expected):
    assert url(PICTURE, width, density=density, types=types) == expected


def test_the_trace_tells_every_source_and_its_reason():
    trace = pick(PICTURE, env(600)).trace
    assert [(s.element, s.taken) for s in trace] == [
        ("source 1", False),
        ("source 2", False),
        ("source 3", True),
        ("source 3", True),
    ]
    assert trace[0].why == "(max-width: 599px) does not hold at 600 × 800"
    assert trace[3].why == "1x asked of 1x, 2x: 1x is the least that suffices"


@pytest.mark.parametrize(
    "inside",
    [
        '<img src="i"><source srcset="s">',
        '<div><source srcset="s"></div><img src="i">',
        '<template><source srcset="s"></template><img src="i">',
        '<noscript><source srcset="s"></noscript><img src="i">',
        '<source src="s"><img src="i">',
        '<source srcset=""><img src="i">',
        '<source srcset="s 9"><img src="i">',
        '<source srcset="s" media="print"><img src="i">',
        '<source srcset="s" type="image/heic"><img src="i">',
        '<source srcset="s" type="text/html"><img src="i">',
        '<source srcset="s" type="image/*"><img src="i">',
        '<div><img src="i"></div>',
        '<source srcset="s"><span><img src="i"></span>',
    ],
)
def test_sources_that_do_not_count(inside):
    assert url(f"<picture>{inside}</picture>") == "i"


@pytest.mark.parametrize(
    "attributes",
    [
        "",
        'media=""',
        'type=""',
        'media="  "',
        'type="image/avif; codecs=av01"',
        'type=" IMAGE/WEBP "',
        "media",
    ],
)
def test_sources_that_do(attributes):
    assert url(f'<picture><source srcset="s" {attributes}><img src="i"></picture>') == "s"


def test_an_img_that_scripts_switch_off_is_not_the_one_that_loads():
    assert url('<noscript><img src="n"></noscript><img src="i">') == "i"
    assert url('<template><img src="t"></template><img src="i">') == "i"


def test_a_source_outside_a_picture_is_nothing():
    assert url('<div><source srcset="s"><img src="i"></div>') == "i"


def test_a_source_with_only_2x_wins_even_at_1x():
    assert url('<picture><source srcset="s 2x"><img src="i"></picture>') == "s"


def test_media_and_type_on_img_are_ignored():
    assert url('<img src="i" media="print" type="image/heic">') == "i"


def test_a_source_does_not_inherit_sizes():
    markup = '<picture><source srcset="s 400w, l 1000w"><img sizes="400px" src="i"></picture>'
    assert url(markup) == "l"


# -- auto --


def test_auto_is_the_rounded_layout_width_of_a_lazy_image():
    markup = '<img loading="lazy" sizes="auto" srcset="a 100w, b 101w">'
    assert url(markup, layout_width=100.49) == "a"
    assert url(markup, layout_width=100.5) == "b"
    # the style sheet of browsers gives 300×150
    assert url('<img loading="lazy" sizes="auto" srcset="a 300w, b 301w">') == "a"


def test_auto_on_a_lazy_picture_s_sources():
    with_auto = (
        '<picture><source {} srcset="a 300w, b 1000w"><img loading="lazy" sizes="auto"'
        ' src="i"></picture>'
    )
    assert url(with_auto.format(""), layout_width=300) == "a"
    assert url(with_auto.format('sizes="auto"'), layout_width=300) == "a"
    assert url(with_auto.format('sizes=""'), layout_width=300) == "b"


def test_auto_without_lazy_is_where_the_standard_and_chromium_part():
    markup = '<img sizes="auto, 400px" srcset="a 400w, b 1000w">'
    found = pick(markup, env())
    assert found.url == "a" and any("Chromium takes 100vw" in w for w in found.warnings)
    assert url(markup, policy="chromium") == "b"


@pytest.mark.parametrize("hiding", ['style="display: none"', "hidden"])
def test_hidden_and_lazy_is_never_loaded(hiding):
    assert url(f'<img loading="lazy" {hiding} src="i">') is None
    assert url(f'<div {hiding}><img loading="lazy" src="i"></div>') is None
    assert url(f'<img {hiding} src="i">') == "i"  # hidden, and downloads all the same


def test_for_every_source_the_widths_at_which_it_wins():
    wrong = (
        '<picture><source media="(max-width: 1023px)" srcset="b"><source media="(max-width: 599px)"'
        ' srcset="a"><img src="d"></picture>'
    )
    found = {w.element: w.runs for w in wins(wrong, env(), range(320, 2561))}
    assert found == {"source 1": ((320, 1023),), "source 2": (), "img": ((1024, 2560),)}


def test_markup_without_an_img_is_refused():
    with pytest.raises(InvalidPlan, match="no img"):
        pick("<p>text</p>", env())


def test_an_environment_without_density_is_refused():
    with pytest.raises(InvalidPlan):
        pick("<img src=i>", dataclasses.replace(env(), density=0))


# -- engines (docs/engines.md: what Chromium 156, Firefox ESR 153.7, WebKitGTK 2.50.6 do) --


def by_engine(markup, **kw):
    return [
        url(markup, policy=p, **kw) for p in ("least-sufficient", "chromium", "firefox", "webkit")
    ]


@pytest.mark.parametrize(
    ("markup", "kw", "expected"),
    [
        # a denser data: URL
        ('<img srcset="a 1x, data:,x 3x">', {}, ["a", "data:,x", "a", "a"]),
        # JXL
        (
            '<picture><source type="image/jxl" srcset="s"><img src="i"></picture>',
            {},
            ["i", "s", "i", "i"],
        ),
        # math in sizes: all, four functions, all, calc alone
        ('<img sizes="min(400px, 100vw)" srcset="a 400w, b 1000w">', {}, ["a", "a", "a", "b"]),
        (
            '<img sizes="sqrt(160000) * 1px, calc(sqrt(4) * 200px)" srcset="a 400w, b 1000w">',
            {},
            ["a", "b", "a", "b"],
        ),
        ('<img sizes="calc(100vw - 600px)" srcset="a 400w, b 1000w">', {}, ["a", "a", "a", "a"]),
        # auto on an image that is not lazy: the entry after it, but Chromium takes 100vw
        ('<img sizes="auto, 400px" srcset="a 400w, b 1000w">', {}, ["a", "b", "a", "a"]),
        # auto on a lazy one: WebKit does not know it; Firefox does not round
        (
            '<img loading="lazy" sizes="auto, 900px" srcset="a 100w, b 101w, c 900w">',
            {"layout_width": 100.49},
            ["a", "a", "b", "c"],
        ),
        # the img's auto overrules a source's own sizes in Firefox alone
        (
            (
                '<picture><source sizes="900px" srcset="a 300w, b 900w"><img loading="lazy"'
                ' sizes="auto, 900px" src="i"></picture>'
            ),
            {"layout_width": 300},
            ["b", "b", "a", "b"],
        ),
        # lengths in media: exact, within 1/64 px, exact, cut to 1/64 px
        (
            '<picture><source media="(min-width: 1000.0156px)" srcset="s"><img src="i"></picture>',
            {},
            ["i", "s", "i", "s"],
        ),
        (
            '<picture><source media="(width < 1000.01px)" srcset="s"><img src="i"></picture>',
            {},
            ["s", "s", "s", "i"],
        ),
        # Firefox's densities are 60 over a whole number: 1.75 is 1.7647
        ('<img srcset="a 1.75x, b 3x">', {"density": 1.75}, ["a", "a", "b", "a"]),
        ('<img srcset="a 3.5x, b 4x">', {"density": 3.5}, ["a", "a", "b", "a"]),
        ('<img srcset="a 1.5x, b 3x">', {"density": 1.5}, ["a", "a", "a", "a"]),
        # and compared in 64 bits
        ('<img srcset="a 1.999999999x, b 3x">', {"density": 2}, ["a", "a", "b", "a"]),
        # leading zeros, and x beyond 32 bits
        ('<img sizes="400px" srcset="a 0400w, b 1000w">', {}, ["a", "a", "b", "a"]),
        ('<img srcset="a 1e39x" src="i">', {"density": 2}, ["a", "i", "a", "a"]),
        # an infinite or huge size: no file suffices, all take the largest
        ('<img sizes="1e37px" srcset="a 400w, b 1000w, c 900w">', {}, ["b", "b", "b", "b"]),
    ],
)
def test_what_each_engine_takes(markup, kw, expected):
    assert by_engine(markup, **kw) == expected


def test_infinite_and_impossible_lengths_are_read_as_css_says():
    """CSS Values 4, §10.9.1: infinite lengths are clamped, NaN counts as 0."""
    for text in ("calc(infinity * 1px)", "calc(exp(1e9) * 1px)", "calc(pow(10, 999) * 1px)"):
        assert url(f'<img sizes="{text}" srcset="a 400w, b 1000w">') == "b"
    for text in ("calc(NaN * 1px)", "calc(pow(-8, .333) * 1px)", "calc(sqrt(-1) * 1px)"):
        # of no width: the first in document order
        assert url(f'<img sizes="{text}" srcset="a 400w, b 1000w">') == "a"


def test_where_engines_part_is_warned_about():
    def warned(markup, **kw):
        return " ".join(pick(markup, env(**kw)).warnings)

    assert "WebKit drops an entry of sizes with min()" in warned(
        '<img sizes="min(400px, 100vw)" srcset="a 400w, b 1000w">'
    )
    assert "WebKit takes b here" in warned(
        '<img sizes="min(400px, 100vw)" srcset="a 400w, b 1000w">'
    )
    assert "WebKit takes 100vw" in warned(
        '<img loading=lazy sizes="auto" srcset="a 400w, b 1000w">'
    )
    assert "Write px" in warned(
        '<picture><source media="(min-width: 40em)" srcset="s"><img src="i"></picture>'
    )
    assert "1.7647x" in warned('<img srcset="a 1x, b 1.75x">') and "Firefox takes c here" in warned(
        '<img srcset="b 1.75x, c 3x">', density=1.75
    )
    assert "Chromium takes data:" in warned('<img srcset="a 1x, data:,x 3x">')
    for clean in (
        '<img srcset="a 1x, b 2x">',
        '<img sizes="(max-width: 1120px) calc(100vw - 40px), 1080px" srcset="a 400w">',
    ):
        assert warned(clean) == ""


@pytest.mark.slow
def test_long_markup_takes_time_in_proportion_or_is_refused():
    many = ", ".join(f"(max-width: {i}px) {i}px" for i in range(1, 20001))
    assert url(f'<img sizes="{many}, 5px" srcset="a 1000w, b 2000w">', width=1000) == "a"
    with pytest.raises(InvalidPlan, match="nested more than"):
        pick("<div>" * 40_000 + "<img src=a>", env())
    with pytest.raises(InvalidPlan, match="characters"):
        pick("<img src=a>" + " " * 3_000_000, env())
    deep = "(" * 5000 + "min-width: 1px" + ")" * 5000
    assert url(f'<picture><source media="{deep}" srcset="s"><img src="i"></picture>') == "i"
    assert url(f'<img sizes="calc{"(" * 5000}1px{")" * 5000}" srcset="a 400w, b 1000w">') == "b"


@given(
    st.lists(st.integers(1, 6000), min_size=1, max_size=8, unique=True).map(sorted),
    st.lists(st.integers(1, 30_000_000), min_size=1, max_size=6),
    st.sampled_from([0.75, 1, 1.25, 1.5, 2, 2.625, 3]),
)
def test_at_all_widths_at_once_the_file_is_the_one_that_is_picked_at_each(widths, drawn, density):
    """`sizes` in ten-thousandths of a px, as it is written; also where a file has exactly the px
    that are asked for."""
    sizes = [d / 10_000 for d in drawn] + [w / density for w in widths]
    at = chosen_by_width(widths, np.array(sizes), density)
    srcset = ", ".join(f"{w}.jpg {w}w" for w in widths)
    env = Environment(width=1000, height=800, density=density)
    for size, i in zip(sizes, at, strict=True):
        img = f'<img src="a.jpg" srcset="{srcset}" sizes="{size:.4f}px">'
        assert pick(img, env).url == f"{widths[i]}.jpg", (size, widths)
