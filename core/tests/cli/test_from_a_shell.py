"""Hard lines of the commands: exact answers, in time, and never the end of the others."""

import json
import subprocess
import sys

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from skypane.cli.batch import Question, answer
from skypane.cli.galleries import GridQuestion, answer_grid
from skypane.cli.pictures import (
    KeepsQuestion,
    ShowsQuestion,
    answer_advise,
    answer_shows,
)
from skypane.cli.widths import LadderQuestion, SizesQuestion, answer_ladder, answer_sizes
from skypane.errors import InvalidPlan
from skypane.files.ladder import Bytes, Growth, Need, best, merged_needs
from skypane.model import Area, FixedWidth, HeightRule, Original, Rect, Treatment, ViewportHeight
from skypane.picks import Environment
from skypane.picks.media import media_matches

pytestmark = pytest.mark.slow


def advised(height: HeightRule, *, width=500, area=None, heights=(560, 800, 1200)):
    """The picture, area and span of which a ratio was once refused."""
    keep = Area(name="K", rect=area or Rect(x=0.1, y=0.3, w=0.8, h=0.45), least_px=390)
    original = Original(id=1, name="a.jpg", width_px=1800, height_px=3200, areas=(keep,))
    treatment = Treatment(width=FixedWidth(width_px=width), height=height)
    span = {"first": 800, "last": 1000, "heights": heights}
    question = KeepsQuestion(original=original, span=span, treatment=treatment)
    return question, answer_advise(question)["advice"]


def test_a_ratio_in_the_place_of_vh_keeps_to_the_greatest_height():
    """The area is as high as wide in px, 0.45 of 3200, so that a frame of 500 px holds it at
    0.8·1800 / (0.45·3200) · 1/0.8 = 1.25:1, 400 px high (worked from the rule); 60 vh would be 720
    px on a screen of 1200, more than the 460 that were set."""
    _, advice = advised(ViewportHeight(percent=60, greatest_px=460))
    step = advice["steps"][advice["best"]]
    assert step["kind"] == "ratio" and step["figures"]["ratio"] == 1.25
    assert (step["figures"]["frame_width"], step["figures"]["frame_height"]) == (500, 400)
    assert step["treatment"]["height"]["greatest_px"] == 460


@settings(max_examples=60)
@given(
    percent=st.integers(20, 100),
    least=st.none() | st.integers(100, 400),
    greatest=st.none() | st.integers(400, 900),
    w=st.floats(0.3, 0.9),
    h=st.floats(0.1, 0.6),
)
def test_what_works_works_and_its_figures_are_those_of_its_frame(percent, least, greatest, w, h):
    """Every step that is said to work, tried: all areas whole, no height below the least or above
    the greatest, and no frame lowered by *taller*."""
    rule = ViewportHeight(percent=percent, least_px=least, greatest_px=greatest)
    question, advice = advised(rule, area=Rect(x=0.05, y=0.2, w=w, h=h))
    before = question.plan()
    for step in advice["steps"] if advice else ():
        if not step["works"] or step["kind"] in ("colour", "original"):
            continue
        values = {**question.treatment.model_dump(), **step["treatment"]}
        after = question.model_copy(update={"treatment": Treatment.model_validate(values)}).plan()
        if least:
            assert after.H.min() >= min(least, before.H.min()) - 0.01, step
        if greatest:
            assert after.H.max() <= max(greatest, least or 0) + 0.01, step
        if step["kind"] == "taller":
            assert (after.H.max(axis=0) >= before.H.max(axis=0) - 0.01).all(), step
        if "frame_height" in step["figures"]:
            assert step["figures"]["frame_height"] == pytest.approx(after.H.min(), abs=0.06), step


@pytest.mark.parametrize("sides", [(0.0005, 300), (1e-9, 1e-9), (300, 0.00099)])
def test_sides_that_are_none_are_refused_with_a_sentence(sides):
    for image, frame in ((sides, (300, 200)), ((300, 200), sides)):
        with pytest.raises(InvalidPlan, match=r"is no size\. Give sides from 0\.001"):
            answer_shows(ShowsQuestion(image=image, frame=frame))


@pytest.mark.parametrize("error", [KeyError("x"), UnboundLocalError("y"), AttributeError("z")])
def test_no_exception_takes_the_other_lines_with_it(error):
    def fails(question):
        raise error

    assert "error" in answer(Question, fails, "{}")


@pytest.mark.parametrize("command", ["plan", "export", "check"])
@pytest.mark.parametrize("as_json", [True, False])
def test_without_its_extra_a_build_says_what_to_install(tmp_path, command, as_json):
    """A core without libvips, as a build that only asks questions has it."""
    (tmp_path / "site.json").write_text("{}")
    code = (
        "import sys\n"
        "sys.modules['pyvips'] = None\n"
        "from skypane.cli import app\n"
        f"app(['{command}', 'site.json', '.', 'out'{', ' + repr('--json') if as_json else ''}])"
    )
    run = subprocess.run([sys.executable, "-c", code], cwd=tmp_path, capture_output=True, text=True)
    assert run.returncode == 1 and "Traceback" not in run.stderr
    said = json.loads(run.stdout)["error"] if as_json else run.stderr
    assert "skypane[pixels]" in said


def exhaustive(needs, n, size):
    """All ways to choose at most n widths that hold the top."""
    from itertools import combinations

    px = [need.px for need in needs]
    found = []
    for k in range(min(n, len(px))):
        for chosen in combinations(px[:-1], k):
            widths = sorted((*chosen, px[-1]))
            taken = [next(w for w in widths if w >= need.px) for need in needs]
            weight = np.array([need.weight for need in needs])
            found.append(float((weight * size(np.array(taken, dtype=float))).sum()))
    return min(found)


@given(
    st.lists(
        st.tuples(st.integers(1, 4000), st.sampled_from([0, 0.1, 1, 1, 7])), min_size=1, max_size=9
    ),
    st.integers(1, 5),
)
def test_the_ladder_is_the_best_of_all_also_with_needs_of_no_weight(asked, n):
    needs = merged_needs([Need(px, w) for px, w in asked], max(px for px, _ in asked))
    size = Bytes({"a": Growth(), "b": Growth(c=2, e=1.9)}, {"a": 0.7, "b": 0.3})
    found = best(needs, n, size)[-1]
    assert found.expected == pytest.approx(exhaustive(needs, n, size), rel=1e-9)


def test_long_lines_end():
    """The longest that are legal: 5,000 needs and 100 files; what would take minutes is refused
    with what can be asked for instead."""
    needs = [{"px": 200 + i, "weight": 1 + i % 7} for i in range(5000)]
    asked = LadderQuestion.model_validate({"crop": 9000, "needs": needs, "n": 100})
    assert len(answer_ladder(asked)["widths"]) == 100
    items = [{"w": 100 + i % 200, "h": 150} for i in range(2000)]
    grid = {"columns": 3, "items": items, "target_px": 200, "at": list(range(320, 10_320))}
    with pytest.raises(InvalidPlan, match="ask for at most 7 widths, or leave out target_px"):
        answer_grid(GridQuestion.model_validate(grid))
    seven = GridQuestion.model_validate({**grid, "at": grid["at"][:7]})
    assert len(answer_grid(seven)["rows"]) == 7


@pytest.mark.parametrize("style", ["max-width", "min-width", "range"])
@given(width=st.floats(560, 640))
def test_a_sum_is_that_of_the_span_that_holds(style, width):
    """Also between two px, where the three ways to write a breakpoint differ: 600.5 px is neither
    `max-width: 600px` nor `min-width: 601px`, and less than 601 (Media Queries 4)."""
    spans = [
        {"last": 600, "width": {"kind": "fixed", "width_px": 100}, "share": 1.5},
        {"width": {"kind": "fixed", "width_px": 200}},
    ]
    asked = SizesQuestion.model_validate({"spans": spans, "style": style, "at": [width]})
    told = answer_sizes(asked)
    condition = {
        "max-width": "(max-width: 600px)",
        "min-width": "not all and (min-width: 601px)",
        "range": "(width < 601px)",
    }[style]
    narrow = media_matches(condition, Environment(width, 800))
    assert told["widths"] == [150 if narrow else 200]
    assert told["sums"] == ["100; 150 % of 100 = 150" if narrow else "200"]
