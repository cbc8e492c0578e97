"""Parsing of srcset, case by case (HTML Standard "parsing a srcset attribute"; docs/chromium.md §2
for what was seen)."""

import pytest
from skypane.picks.engines import CHROMIUM
from skypane.picks.srcset import Candidate, parse_srcset

C = Candidate


def parse(text, **kw):
    return list(parse_srcset(text, **kw).candidates)


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("", []),
        ("  ", []),
        (",", []),
        ("a.png", [C("a.png")]),
        ("a.png 2x", [C("a.png", 2.0)]),
        ("a.png 600w", [C("a.png", None, 600)]),
        ("a 1x, b 2x", [C("a", 1.0), C("b", 2.0)]),
        ("a 1x,b 2x", [C("a", 1.0), C("b", 2.0)]),
        # leading and repeated commas are skipped
        (",, a 1x,, b 2x,", [C("a", 1.0), C("b", 2.0)]),
        # a URL runs to white space: no split inside
        ("a,b", [C("a,b")]),
        ("a.png,b.png", [C("a.png,b.png")]),
        # trailing commas are stripped, and then there are no descriptors
        ("a, b 2x", [C("a"), C("b", 2.0)]),
        ("a,, b 2x", [C("a"), C("b", 2.0)]),
        # only ASCII white space separates
        ("a\u00a02x", [C("a\u00a02x")]),
        ("a\u30002x", [C("a\u30002x")]),
        ("a\v2x", [C("a\v2x")]),
        ("a\t2x\n,\fb\r3x", [C("a", 2.0), C("b", 3.0)]),
        # parentheses protect commas, and make the candidate invalid
        ("a 1x(2, 3), b 2x", [C("b", 2.0)]),
        ("a (, b 2x", []),
        ("data:,a 1x", [C("data:,a", 1.0)]),
    ],
)
def test_splitting(text, expected):
    assert parse(text) == expected


@pytest.mark.parametrize("good", ["1x", ".5x", "1e0x", "-0x", "0x", "1.5x", "2.0x", "1E1x"])
def test_densities_that_are_valid_floats(good):
    assert len(parse(f"a {good}")) == 1


@pytest.mark.parametrize(
    "bad",
    ["1.x", "+1x", "1X", "-1x", "x", "1e400y", "NaNx", "Infinityx", "1x 2x", "1x 1w", "1x 30h"],
)
def test_densities_that_drop_the_candidate(bad):
    assert parse(f"a {bad}, b 3x") == [C("b", 3.0)]


@pytest.mark.parametrize("good", ["60w", "060w", "60w 30h", "30h 60w"])
def test_widths(good):
    assert parse(f"a {good}") == [C("a", None, 60)]


@pytest.mark.parametrize(
    "bad",
    [
        "+60w",
        "60.0w",
        "60W",
        "0w",
        "-0w",
        "30h",
        "60w 60w",
        "60w 0h",
        "60w 30h 30h",
        "6_0w",
        "٦w",
        "foo",
    ],
)
def test_widths_that_drop_the_candidate(bad):
    assert parse(f"a {bad}, b 5w") == [C("b", None, 5)]


def test_widths_end_at_32_bits_and_only_chromium_s_densities_do():
    # no engine takes more (docs/engines.md)
    assert not parse("a 2147483648w") and parse("a 2147483647w")
    assert parse("a 1e39x") and not parse("a 1e39x", engine=CHROMIUM)


def test_why_a_candidate_was_dropped_is_said():
    dropped = parse_srcset("a 60W, b 0w, c 30h").dropped
    assert [d.url for d in dropped] == ["a", "b", "c"]
    assert "no width" in dropped[0].why and "zero" in dropped[1].why and "beside" in dropped[2].why
