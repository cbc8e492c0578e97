"""Contrast and scrims, against WCAG 2.2, coloraide and the formulas of CSS Images 3."""

import json
import math
import subprocess
import sys
from itertools import pairwise
from pathlib import Path

import numpy as np
import pytest
from coloraide import Color
from hypothesis import given
from hypothesis import strategies as st
from skypane.cli.words import ReadableQuestion
from skypane.model import LinearScrim, PlainScrim, Stop
from skypane.words import scrim
from skypane.words.contrast import (
    contrast,
    exact_luminance,
    least_strength,
    luminance,
    luminance_of,
    needed,
    ratio_of,
)

colours = st.tuples(*[st.integers(0, 255)] * 3).map(lambda c: "#{:02x}{:02x}{:02x}".format(*c))


@pytest.mark.parametrize(
    ("a", "b", "ratio"),
    [
        # Understanding SC 1.4.3, and widely quoted: the grey that just fails, the one that passes
        ("#777777", "#ffffff", 4.48),
        ("#767676", "#ffffff", 4.54),
        ("#000000", "#ffffff", 21.0),
    ],
)
def test_the_ratios_of_the_standards_own_examples(a, b, ratio):
    assert ratio_of(a, b) == pytest.approx(ratio, abs=0.005) == ratio_of(b, a)


@given(colours, colours)
def test_luminance_and_contrast_are_those_of_coloraide(a, b):
    """coloraide's luminance takes linear light with the primaries' exact weights, the standard
    rounds them to four digits: less than 1 part in 1000 apart."""
    assert luminance_of(a) == pytest.approx(Color(a).luminance(), abs=2e-4)
    theirs = Color(a).contrast(Color(b), method="wcag21")
    assert ratio_of(a, b) == pytest.approx(theirs, rel=2e-3)


@given(st.lists(st.tuples(*[st.floats(0, 255)] * 3), min_size=1, max_size=50))
def test_luminance_is_looked_up_to_a_fraction_of_a_level(values):
    rgb = np.array(values)
    near = np.abs(luminance(rgb) - exact_luminance(rgb))
    step = exact_luminance(np.minimum(rgb + 1 / 16, 255)) - exact_luminance(
        np.maximum(rgb - 1 / 16, 0)
    )
    assert (near <= step + 1e-12).all()


def test_large_text_needs_less():
    assert (needed(False), needed(True)) == (4.5, 3.0)


@given(st.lists(st.floats(0, 1), min_size=1, max_size=400), st.floats(0, 1))
def test_the_worst_twentieth_is_passed_over(under, ink):
    """The greatest ratio that at least 95 % of the px reach: ascending, index ⌊n/20⌋ (rules
    §9)."""
    found = contrast(ink, np.array(under))
    ratios = sorted((max(ink, u) + 0.05) / (min(ink, u) + 0.05) for u in under)
    assert found.worst == pytest.approx(ratios[len(under) // 20])
    reached = sum(r >= found.worst - 1e-12 for r in ratios)
    assert reached >= 0.95 * len(under)
    greater = [r for r in ratios if r > found.worst + 1e-9]
    assert not greater or sum(r >= greater[0] for r in ratios) < 0.95 * len(under) + 1
    assert found.mean == pytest.approx(np.mean(ratios))


def test_a_gradient_that_is_clear_up_to_half_leaves_the_left_half_untouched():
    """Common practice."""
    stops = (Stop(alpha=0, at=0), Stop(alpha=0, at=50), Stop(alpha=1, at=100))
    x = np.arange(100) + 0.5
    colour, alpha = scrim.painted(LinearScrim(angle=90, stops=stops), 1.0, x, 0 * x + 20, 100, 40)
    below = np.full((100, 3), 180.0)
    laid = scrim.over(below, colour, alpha)
    assert (laid[:50] == 180).all() and (np.diff(laid[50:, 0]) < 0).all()
    assert laid[-1, 0] == pytest.approx(180 * 0.01, abs=0.1)


@given(
    st.floats(-360, 360),
    st.floats(1, 2000),
    st.floats(1, 2000),
    st.floats(0, 1),
    st.floats(0, 1),
    st.lists(st.tuples(colours, st.floats(0, 1), st.floats(0, 100)), min_size=2, max_size=6),
    st.floats(0, 1),
)
def test_gradients_are_those_of_css_images_3(angle, W, H, fx, fy, stops, strength):
    """Written out for one point: the gradient line of §3.4.1, stops repaired as §3.4.3 says,
    premultiplied colours between them (§3.4.2)."""
    made = LinearScrim.model_construct(
        kind="linear",
        angle=angle,
        stops=tuple(Stop(colour=c, alpha=a, at=p) for c, a, p in stops),
    )
    x, y = fx * W, fy * H
    turn = math.radians(angle)
    length = abs(W * math.sin(turn)) + abs(H * math.cos(turn))
    t = 0.5 + ((x - W / 2) * math.sin(turn) - (y - H / 2) * math.cos(turn)) / length
    where, furthest = [], 0.0
    for c, a, p in stops:
        furthest = max(furthest, p / 100)
        rgb = [int(c[i : i + 2], 16) for i in (1, 3, 5)]
        where.append((furthest, [v * a * strength for v in rgb] + [a * strength]))
    if any(abs(t - p) < 1e-6 for p, _ in where):
        return  # on a hard stop either side is right
    expected = where[0][1] if t < where[0][0] else where[-1][1]
    for (p0, v0), (p1, v1) in pairwise(where):
        if p0 <= t < p1:
            k = (t - p0) / (p1 - p0)
            expected = [u + (v - u) * k for u, v in zip(v0, v1, strict=True)]
    found = scrim.painted(made, strength, np.array([x]), np.array([y]), W, H)
    if strength == 0:
        assert found is None
        return
    assert [*found[0][0], found[1][0]] == pytest.approx(expected, abs=1e-6 * 255)


@pytest.mark.parametrize(("large", "least"), [(False, 0.5347), (True, 0.4162)])
def test_white_on_white_asks_for_so_much_black(large, least):
    """rules §9, worked from the formula: 255·(1 − s) is the grey of 4.5 : 1, or 3 : 1."""
    paint = PlainScrim(colour="#000000")
    white = np.full((1, 3), 255.0)

    def margin(strength):
        laid = scrim.over(white, np.zeros(3), np.full(1, strength))
        return float(contrast(1.0, exact_luminance(laid)).worst) / needed(large)

    assert least_strength(margin, 1e-7).strength == pytest.approx(least, abs=5e-5)
    assert scrim.css(paint, least) == f"rgb(0 0 0 / {least})"


def test_the_least_strength_is_found_where_more_is_worse_again():
    """A middle grey under a scrim of the other side: readable, then not, then readable again. The
    first strength that passes is told, and what no strength does."""
    peaks = least_strength(lambda s: 1.2 - 8 * abs(s - 0.31) if s < 0.5 else 0.9 + s / 5)
    assert peaks.strength == pytest.approx(0.31 - 0.2 / 8, abs=1e-4)
    assert least_strength(lambda s: s * 0.8).strength is None
    assert least_strength(lambda s: s * 0.8).best == pytest.approx(0.8)
    assert least_strength(lambda s: 2.0).strength == 0.0


def asked(*lines):
    run = [sys.executable, "-c", "from skypane.cli import app; app()", "readable", "--batch"]
    text = "\n".join(line if isinstance(line, str) else json.dumps(line) for line in lines)
    out = subprocess.run(run, input=text + "\n", capture_output=True, check=True, text=True)
    return [json.loads(line) for line in out.stdout.splitlines()]


def test_the_command_answers_line_by_line():
    gradient = {
        "kind": "linear",
        "angle": 90,
        "stops": [{"at": 0, "alpha": 0}, {"at": 50, "alpha": 0}, {"at": 100, "alpha": 1}],
    }
    px = [[250, 250, 250]] * 4
    found = asked(
        {"text": {"colour": "#777777"}},
        {"text": {"colour": "#767676"}},
        {"scrim": {"kind": "plain"}, "strength": 0},
        {"scrim": {"kind": "plain"}, "text": {"size_px": 18.7, "bold": True}},
        {"px": px, "columns": 4, "frame": [8, 8], "scrim": gradient},
        {"px": px, "columns": 4, "left": 4, "frame": [8, 8], "scrim": gradient},
        {"px": [[0, 0, 0, 0]] * 3, "text": {"colour": "#000000"}},
        {"px": px, "scrim": gradient},
        {"text": {"colour": "white"}},
        {"scrim": {"kind": "linear", "stops": [{"at": 60}, {"at": 30}]}},
        "nonsense",
    )
    assert [f.get("worst") for f in found[:2]] == [4.4781, 4.5422]
    assert [f.get("passes") for f in found[:2]] == [False, True]
    assert found[2]["least_strength"] == 0.5347 and found[3]["least_strength"] == 0.4162
    # the gradient's clear half, then its other half
    assert found[4]["worst"] == pytest.approx(1.05, abs=0.01) and found[5]["mean"] > 3
    assert found[6]["worst"] == 21  # what is seen through shows the background
    assert "frame" in found[7]["error"]
    assert "six digits" in found[8]["error"]
    assert "30 % follows 60 %" in found[9]["error"]
    assert "not JSON" in found[10]["error"]


def test_the_schema_in_the_documentation_is_true():
    committed = Path(__file__).parents[3] / "docs/readable.schema.json"
    assert json.loads(committed.read_text()) == ReadableQuestion.model_json_schema()
