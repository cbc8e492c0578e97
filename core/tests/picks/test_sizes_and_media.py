"""sizes and media queries (HTML Standard; Media Queries 4; Values 4; docs/chromium.md §4 and §5 for
what was seen)."""

import pytest
from skypane.picks import Environment
from skypane.picks.media import media_matches
from skypane.picks.sizes import evaluate_sizes, is_auto

E = Environment(1000, 800)
CHROMIUM = Environment(1000, 800, policy="chromium")


@pytest.mark.parametrize(
    ("text", "width"),
    [
        (None, 1000),
        ("", 1000),
        ("300px", 300),
        ("300px, 500px", 300),
        ("foo, 300px", 300),
        ("(foo) 300px, 500px", 500),
        ("300px 400px, 500px", 500),
        ("(min-width: 600px) 50vw, 100vw", 500),
        ("(min-width: 1600px) 50vw, 80vw", 800),
        ("(foo) or (min-width: 1px) 300px", 300),
        ("not (foo) 300px, 200px", 200),
        ("(min-width:1px) and (max-width: 5px) or (max-width: 1px) 300px, 200px", 200),
        ("not (max-width: 5px) 300px, 200px", 300),
        ("screen 300px", 1000),
        ("all and (min-width: 1px) 300px, 9px", 9),
        ("-5px, 3px", 3),
        ("calc(-100px)", 0),
        ("0", 0),
        ("300", 1000),
        ("300.px", 1000),
        ("50%", 1000),
        ("auto", 1000),
        ("var(--a), 4px", 4),
        ("300px !important", 1000),
        ("300px;", 1000),
        ("calc(300px", 300),
        ("((min-width: 1px) 300px", 1000),
        ("/* a */ 300px /* b */", 300),
        ("2em", 32),
        ("2rem", 32),
        ("50vh", 400),
        ("10vmin", 80),
        ("10vmax", 100),
        ("1in", 96),
        ("72pt", 96),
        ("10Q", 10 * 96 / 101.6),
        ("50svw", 500),
        ("CALC(100VW - 20PX)", 980),
        ("calc((100vw - 3 * 20px) / 4)", 235),
        ("calc(300px+20px)", 1000),
        ("calc(300px +20px)", 1000),
        ("calc(2 * 3)", 1000),
        ("calc(2px * 3px)", 1000),
        ("calc(100px / 4)", 25),
        ("min(50vw, 400px)", 400),
        ("max(50vw, 400px, 30em)", 500),
        ("clamp(100px, 50vw - 20px, 450px)", 450),
        ("min(50vw, 2)", 1000),
    ],
)
def test_sizes(text, width):
    assert evaluate_sizes(text, E).width == pytest.approx(width)
    assert evaluate_sizes(text, CHROMIUM).width == pytest.approx(width)


@pytest.mark.parametrize(
    ("text", "width"),
    [
        ("round(305px, 10px)", 310),
        ("round(down, 305px, 10px)", 300),
        ("mod(18px, 5px)", 3),
        ("abs(-40px)", 40),
        ("hypot(30px, 40px)", 50),
        ("calc(sqrt(16) * 10px)", 40),
        ("calc(pi * 100px)", 314.159265),
        ("clamp(none, 50vw, 400px)", 400),
        ("calc(sin(90deg) * 10px)", 10),
    ],
)
def test_the_standard_takes_any_math_function_and_chromium_four(text, width):
    # Values 4 §10 against what Chromium was seen to take
    assert evaluate_sizes(text, E).width == pytest.approx(width)
    assert evaluate_sizes(text, CHROMIUM).width == 1000


@pytest.mark.parametrize(
    ("text", "auto"),
    [
        ("auto", True),
        ("auto, 400px", True),
        ("AUTO 4px", True),
        ("400px, auto", False),
        ("(min-width:1px) auto", False),
        ("", False),
        (None, False),
    ],
)
def test_auto_counts_as_the_first_token_only(text, auto):
    assert is_auto(text) is auto


@pytest.mark.parametrize(
    ("text", "holds"),
    [
        ("", True),
        (" ", True),
        (",", False),
        ("all", True),
        ("screen", True),
        ("print", False),
        ("not print", True),
        ("only screen", True),
        ("not", False),
        ("and", False),
        ("foo bar, screen", True),
        ("(min-width: 1000px)", True),
        ("(min-width: 1001px)", False),
        ("(max-width: 999px)", False),
        ("(width: 1000px)", True),
        ("(width >= 1000px)", True),
        ("(width > 1000px)", False),
        ("(1000px <= width)", True),
        ("(400px < width <= 1000px)", True),
        ("(1200px > width > 400px)", True),
        ("(400px <= width > 900px)", False),
        ("(width => 600px)", False),
        ("(width < = 600px)", False),
        ("(min-width: 600)", False),
        ("not (min-width: 600)", False),
        ("min-width: 600px", False),
        ("(min-width: 600px", True),
        ("(min-width: 62.5em)", True),
        ("(min-width: calc(500px + 500px))", True),
        ("screen and (min-width: 600px)", True),
        ("screen and/**/(min-width: 600px)", True),
        ("screen and(min-width: 600px)", False),
        ("not screen and (min-width: 600px)", False),
        ("screen and (min-width: 600px) or (color)", False),
        ("(min-width: 600px) and (max-width: 1200px)", True),
        ("(min-width: 1px) and (foo)", False),
        ("(min-width: 1px) or (foo)", True),
        ("not (foo)", False),
        ("not (print)", False),
        ("((min-width: 1px))", True),
        ("(not (max-width: 1px))", True),
        ("not ((max-width: 1px) or (max-height: 1px))", True),
        ("(min-width: 1px) and not (max-width: 1px)", False),
        ("not not (color)", False),
        ("(orientation: landscape)", True),
        ("(orientation: portrait)", False),
        ("(aspect-ratio: 5/4)", True),
        ("(min-aspect-ratio: 1)", True),
        ("(aspect-ratio > 4/3)", False),
        ("(resolution: 1dppx)", True),
        ("(min-resolution: 97dpi)", False),
        ("(-webkit-min-device-pixel-ratio: 1)", True),
        ("(min-device-pixel-ratio: 1)", False),
        ("(color)", True),
        ("(monochrome)", False),
        ("(grid: 0)", True),
        ("(hover)", True),
        ("(pointer: fine)", True),
        ("(prefers-color-scheme)", True),
        ("(prefers-color-scheme: light)", True),
        ("(prefers-color-scheme: dark)", False),
        ("(prefers-reduced-motion)", False),
        ("(prefers-reduced-motion: no-preference)", True),
        ("(prefers-reduced-data: reduce)", False),
        ("(WIDTH: 1000PX)", True),
    ],
)
def test_media(text, holds):
    assert media_matches(text, E) is holds


def test_environment_decides():
    assert media_matches("(prefers-color-scheme: dark)", Environment(1, 1, color_scheme="dark"))
    assert media_matches("(prefers-reduced-motion)", Environment(1, 1, reduced_motion="reduce"))
    assert media_matches("(min-resolution: 192dpi)", Environment(1, 1, density=2))
    assert media_matches("(orientation: portrait)", Environment(800, 800))  # height ≥ width


def test_only_chromium_tolerates_a_64th_of_a_px():
    assert not media_matches("(min-width: 1000.0156px)", E)
    assert media_matches("(min-width: 1000.0156px)", CHROMIUM)
    assert not media_matches("(min-width: 1000.016px)", CHROMIUM)
    assert media_matches("(width < 1000.01px)", CHROMIUM) and media_matches(
        "(width >= 1000.01px)", CHROMIUM
    )
    assert media_matches("(width < 1000.01px)", E) and not media_matches("(width >= 1000.01px)", E)
