"""The command line: JSON in, JSON out, one bad line does not stop the rest."""

import json
import subprocess
import sys
from pathlib import Path

import pytest
from skypane.cli import galleries, pictures, widths

pytestmark = pytest.mark.slow

SKYPANE = [sys.executable, "-c", "from skypane.cli import app; app()"]


def run(command, *lines, batch=True):
    out = subprocess.run(
        [*SKYPANE, command, *(["--batch"] if batch else [])],
        input="\n".join(lines).encode(),
        capture_output=True,
        check=False,
    )
    text = out.stdout.decode()
    return (
        [json.loads(line) for line in text.splitlines()]
        if batch
        else (out.returncode, json.loads(text))
    )


def test_picks_in_batch_keeps_order_and_goes_on_after_bad_lines():
    ask = {"markup": '<img srcset="a 1x, b 2x">', "width": 400, "height": 800, "density": 2}
    answers = run(
        "picks",
        json.dumps(ask),
        "{not json",
        "",
        json.dumps({**ask, "density": 1}),
        json.dumps({**ask, "policy": "x"}),
        '{"markup": "<p>"}',
        "[1]",
    )
    assert (answers[0]["url"], answers[0]["density"]) == ("b", 2.0)
    assert "not JSON" in answers[1]["error"] and "empty" in answers[2]["error"]
    assert answers[3]["url"] == "a"
    assert (
        "policy" in answers[4]["error"]
        and "width: It is missing." in answers[5]["error"]
        and "error" in answers[6]
    )
    assert answers[0]["trace"][-1]["taken"] is True


def test_picks_takes_the_whole_environment():
    dark = (
        '<picture><source media="(prefers-color-scheme: dark)" srcset="n"><source'
        ' media="(prefers-reduced-motion: reduce)" srcset="s"><img src="d"></picture>'
    )
    ask = {"markup": dark, "width": 400, "height": 800, "density": 1}
    lazy = {
        **ask,
        "markup": '<img loading=lazy sizes=auto srcset="a 100w, b 200w">',
        "layout_width": 100,
    }
    answers = run(
        "picks",
        *[
            json.dumps(a)
            for a in (
                ask,
                {**ask, "color_scheme": "dark"},
                {**ask, "reduced_motion": "reduce"},
                lazy,
                {**ask, "layout_width": None},
            )
        ],
    )
    assert [a["url"] for a in answers] == ["d", "n", "s", "a", "d"]


def test_shows_gives_image_px_and_css_px():
    (answer,) = run(
        "shows",
        json.dumps(
            {"image": [1600, 900], "frame": [375, 500], "fit": "cover", "position": [0, 0.5]}
        ),
    )
    assert answer["visible"] == pytest.approx([0, 0, 675, 900]) and answer[
        "drawn"
    ] == pytest.approx([0, 0, 888.889, 500], abs=0.001)


def test_shows_refuses_what_has_no_size():
    answers = run(
        "shows",
        '{"image": [0, 9], "frame": [1, 1]}',
        '{"image": [9, 9], "frame": [1, 1], "fit": "stretch"}',
        '{"image": [1e999, 1], "frame": [1,1]}',
    )
    assert (
        "no size" in answers[0]["error"] and "fit" in answers[1]["error"] and "error" in answers[2]
    )


def test_one_question_without_batch():
    code, answer = run(
        "shows", json.dumps({"image": [4, 3], "frame": [4, 3]}, indent=1), batch=False
    )
    assert code == 0 and answer["visible"] == [0, 0, 4, 3]
    code, answer = run("shows", "nonsense", batch=False)
    assert code == 1 and "error" in answer


BOATS = {
    "id": 1,
    "name": "boats.jpg",
    "width_px": 5200,
    "height_px": 2900,
    "focal": [0.6, 0.72],
    "areas": [
        {"name": "Sail boat", "rect": {"x": 0.493, "y": 0.405, "w": 0.237, "h": 0.48}},
        {"name": "Red boat", "rect": {"x": 0.06, "y": 0.51, "w": 0.162, "h": 0.385}},
    ],
}


def test_keeps_gives_runs_and_the_safe_area():
    ask = {
        "original": BOATS,
        "span": {"first": 320, "last": 599},
        "treatment": {"height": {"kind": "ratio", "w": 4, "h": 5}},
    }
    answers = run(
        "keeps",
        json.dumps(ask),
        json.dumps({**ask, "span": {"first": 599, "last": 320}}),
        "nonsense",
    )
    sail, red = answers[0]["areas"]
    assert [(r["first"], r["last"], r["verdict"]) for r in sail["runs"]] == [
        (320, 599, "whole")
    ] and sail["first_failing"] is None
    assert [(r["first"], r["last"], r["verdict"]) for r in red["runs"]] == [
        (320, 599, "lost")
    ] and red["first_failing"] == 320
    x0, x1, y0, y1 = answers[0]["safe"]
    assert x1 - x0 == pytest.approx(0.8 * 2900 / 5200) and (y0, y1) == (0, 1)
    assert "last width" in answers[1]["error"] and "not JSON" in answers[2]["error"]


def test_advise_walks_the_steps_with_figures():
    ask = {
        "original": BOATS,
        "span": {"first": 320, "last": 599},
        "treatment": {"height": {"kind": "ratio", "w": 4, "h": 5}},
    }
    whole = {**ask, "treatment": {"height": {"kind": "natural"}}}
    answers = run("advise", json.dumps(ask), json.dumps(whole))
    advice = answers[0]["advice"]
    assert [s["kind"] for s in advice["steps"][:3]] == ["aim", "whole", "ratio"] and advice[
        "best"
    ] == 1
    assert advice["steps"][1]["treatment"] == {"height": {"kind": "natural"}}
    assert answers[1]["advice"] is None


@pytest.mark.parametrize(
    ("name", "question"),
    [
        ("keeps", pictures.KeepsQuestion),
        ("sizes", widths.SizesQuestion),
        ("ladder", widths.LadderQuestion),
        ("grid", galleries.GridQuestion),
        ("logo", galleries.LogoQuestion),
    ],
)
def test_the_schema_in_the_documentation_is_true(name, question):
    committed = Path(__file__).parents[3] / f"docs/{name}.schema.json"
    assert json.loads(committed.read_text()) == question.model_json_schema()


def test_every_line_of_hostile_input_is_answered_in_json():
    keeps = {"original": BOATS, "span": {"first": 320, "last": 599}}
    pick = {"markup": "<img src=a>", "width": 400, "height": 800, "density": 1}
    shows = {"image": [9, 9], "frame": [9, 9]}
    big = "9" * 400
    hostile = {
        "keeps": [
            json.dumps({**keeps, "treatment": {"show": "colour"}}),
            json.dumps({**keeps, "treatment": {"show": "nothing"}}),
            json.dumps({**keeps, "treatment": {"crop": {"x": 0, "y": 0, "w": 1e-320, "h": 1}}}),
            json.dumps({**keeps, "span": {"first": 500, "last": 500}}),
            json.dumps({**keeps, "treatment": {"height": {"kind": "ratio", "w": 1e-300, "h": 1}}}),
            json.dumps({**keeps, "original": {**BOATS, "width_px": 0}}).replace(
                '"width_px": 0', f'"width_px": {big}'
            ),
            '{"original": ' + "[" * 100_000,
        ],
        "shows": [
            f'{{"image": [{big}, 9], "frame": [9, 9]}}',
            json.dumps({**shows, "position": [1e308, -1e308]}),
            json.dumps({**shows, "image": [1e-320, 1e300]}),
            '{"image": [NaN, 1], "frame": [1, 1]}',
            json.dumps({**shows, "fit": "\ud800"}),
        ],
        "picks": [
            json.dumps({**pick, "markup": '<img sizes="calc(exp(1e9)*1px)" srcset="a 1w, b 2w">'}),
            json.dumps(
                {**pick, "markup": '<img sizes="calc(pow(-8,.333)*1px)" srcset="a 1w, b 2w">'}
            ),
            json.dumps({**pick, "markup": "<div>" * 40_000 + "<img src=a>"}),
            json.dumps({**pick, "markup": '<img sizes="' + "(" * 20_000 + '" srcset="a 1w">'}),
            json.dumps({**pick, "markup": '<img srcset="\ud800 1x">'}),
            json.dumps({**pick, "density": 1e-320}),
            json.dumps({**pick, "layout_width": 1e999}),
            '{"markup": "' + "x" * 10_000_000 + '"}',
        ],
        "advise": [
            json.dumps({**keeps, "treatment": {"show": "colour"}}),
            json.dumps(
                {
                    **keeps,
                    "original": {**BOATS, "width_px": 10, "height_px": 20000},
                    "treatment": {"height": {"kind": "ratio", "w": 4, "h": 5}},
                }
            ),
        ],
        "grid": [
            json.dumps({"columns": 0}),
            json.dumps({"columns": 9, "gutter_px": 60, "at": [320]}),
            json.dumps({"columns": 3, "padding_percent": 2, "at": [900]}),
            json.dumps({"columns": 2, "items": [{"w": 1e-320, "h": 1e300}], "target_px": 9}),
            json.dumps({"columns": 2, "items": [{"w": 1, "h": 20}], "target_px": 9, "at": [1]}),
            json.dumps({"columns": 3, "cell_percent": 40, "box": "margin-box"}),
        ],
        "logo": [
            json.dumps({"cuts": []}),
            json.dumps({"cuts": [{"w": 3, "h": 1, "lettering": 2}]}),
            json.dumps({"cuts": [{"w": 1e6, "h": 1e-300, "lettering": 1e-301}], "boxes": [[9, 9]]}),
        ],
    }
    good = {
        "keeps": keeps,
        "shows": shows,
        "picks": pick,
        "advise": keeps,
        "grid": {"columns": 3, "at": [900]},
        "logo": {"cuts": [{"w": 3, "h": 1}]},
    }
    for command, lines in hostile.items():
        answers = run(
            command,
            *lines,
            json.dumps(good[command]),
        )
        assert len(answers) == len(lines) + 1 and "error" not in answers[-1]
        for line, found in zip(lines, answers, strict=False):
            assert "Traceback" not in str(found) and "pydantic" not in str(found)
            if "error" in found:
                assert found["error"].endswith("."), (line[:80], found)
    assert run("keeps", hostile["keeps"][0]) == [{"areas": [], "safe": None}]
    assert "4 MB" in run("picks", hostile["picks"][-1])[0]["error"]


def test_a_span_of_one_width_is_a_span():
    ask = {
        "original": BOATS,
        "span": {"first": 599, "last": 599},
        "treatment": {"height": {"kind": "ratio", "w": 4, "h": 5}},
    }
    for command in ("keeps", "advise"):
        assert "error" not in run(command, json.dumps(ask))[0]


def test_the_policy_of_the_command_line_holds_where_a_question_says_none():
    ask = {"markup": '<img srcset="a 1.75x, b 3x">', "width": 400, "height": 800, "density": 1.75}
    out = subprocess.run(
        [*SKYPANE, "picks", "--batch", "--policy", "firefox"],
        input="\n".join([json.dumps(ask), json.dumps({**ask, "policy": "webkit"})]).encode(),
        capture_output=True,
        check=True,
    )
    assert [json.loads(line)["url"] for line in out.stdout.splitlines()] == ["b", "a"]
