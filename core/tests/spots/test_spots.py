"""Frame rules read off rectangles of a design (rules §17)."""

import json
import random
import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest
from pydantic import ValidationError
from skypane.cli.batch import answer
from skypane.cli.spots import answer_spots
from skypane.errors import sentence_of
from skypane.model import (
    ColumnsWidth,
    Container,
    FixedHeight,
    FixedWidth,
    FullWidth,
    PercentColumnsWidth,
    RatioHeight,
    ShareWidth,
    ViewportHeight,
)
from skypane.spots import Asked, Seen, frame_rules, guessed_width, lines_of
from skypane.widths.frames import frame_heights, frame_widths, standing_left

PAGE = Container(max_width_px=1080, margin_px=20)


def rules(*seen, container=PAGE, gutter_px=60):
    asked = Asked(container=container, gutter_px=gutter_px, seen=tuple(seen))
    return frame_rules(asked)


def at(width, left, right, top=None, bottom=None, **more):
    return Seen(width=width, left=left, right=right, top=top, bottom=bottom, **more)


# -- worked examples -------------------------------------------------------------------------


@pytest.mark.parametrize(("left", "stands", "column"), [
    (180, "start", 1), (560, "centre", 2), (940, "end", 3),
])  # fmt: skip
def test_320_px_of_a_container_of_1080_is_one_of_three_columns(left, stands, column):
    """(1080 − 2·60)/3 = 320, from 180 px on; worked by hand."""
    first = rules(at(1440, left, left + 320))[0]
    assert first.width == ColumnsWidth(columns=3, gutter_px=60)
    assert (first.stands, first.column) == (stands, column)
    assert first.at == (66.67, 202.67, 320, 320)


def test_at_one_width_a_number_that_is_no_share_is_px_before_anything_else():
    first, *others = rules(at(1440, 0, 471))
    assert first.width == FixedWidth(width_px=471) and first.sentence == "471 px."
    assert any(isinstance(r.width, ShareWidth) and r.stands == "start" for r in others)


@pytest.mark.parametrize(
    ("seen", "width", "sentence"),
    [
        ([(1440, 0, 1440), (390, 0, 390)], FullWidth(), "The page from edge to edge."),
        (
            [(1440, 180, 1260), (390, 20, 370)],
            ShareWidth(percent=100, of="container"),
            "The container.",
        ),
        ([(1440, 360, 1080), (390, 98, 293)], ShareWidth(percent=50), "Half the page."),
        (
            [(1440, 480, 960), (768, 256, 512)],
            ShareWidth(percent=33.3333),
            "A third of the page.",
        ),
        (
            [(1440, 40, 1400), (390, 40, 350)],
            FullWidth(margin_px=40),
            "The page less 40 px on both sides.",
        ),
        (
            [(1440, 0, 460), (768, 0, 236)],
            ColumnsWidth(columns=3, gutter_px=30, of="page"),
            "A third of the page less 20 px.",
        ),
        (
            [(1440, 180, 880), (390, 20, 233.3333)],
            ColumnsWidth(columns=3, take=2, gutter_px=60),
            "Two of three columns, gutter 60.",
        ),
        (
            [(1440, 420, 1020), (390, 0, 390)],
            FullWidth(greatest_px=600),
            "The page from edge to edge, at most 600 px.",
        ),
    ],
)
def test_what_a_designer_would_say_comes_first(seen, width, sentence):
    first = rules(*(at(*s) for s in seen))[0]
    assert (first.width, first.sentence) == (width, sentence)


@pytest.mark.parametrize(
    ("seen", "height"),
    [
        ([at(1440, 0, 1440, 100, 820)], RatioHeight(w=2, h=1)),
        ([at(1440, 0, 1440, 0, 810), at(390, 0, 390, 0, 219)], RatioHeight(w=16, h=9)),
        ([at(1440, 0, 1440, 0, 609)], RatioHeight(w=26, h=11)),
        ([at(1440, 0, 1440, 0, 480), at(390, 0, 390, 0, 480)], FixedHeight(height_px=480)),
        (
            [
                at(1440, 0, 1440, 0, 630, viewport_height=900),
                at(390, 0, 390, 0, 591, viewport_height=844),
            ],
            ViewportHeight(percent=70),
        ),
        ([at(1440, 0, 1440)], None),
    ],
)
def test_heights_are_ratios_before_shares_of_the_screen_before_px(seen, height):
    assert rules(*seen)[0].height == height


def test_a_place_that_no_frame_takes_by_itself_is_said():
    first = rules(at(1440, 77, 800), at(390, 11, 207))[0]
    assert first.stands is None and first.column is None
    assert "elsewhere" in first.sentence


def test_what_nothing_gives_is_given_by_nothing():
    """Narrower on a wider page: no one rule makes both."""
    assert rules(at(1440, 0, 100), at(768, 0, 500), at(390, 0, 200)) == ()


# -- any rule is found again -----------------------------------------------------------------


def some_rule(rng):
    bounds = {"greatest_px": rng.choice([480, 600, 720, 960])} if rng.random() < 0.15 else {}
    of = rng.choice(["page", "container"])
    columns = rng.choice([2, 3, 4, 6, 12])
    return rng.choice(
        [
            FullWidth(margin_px=rng.choice([0, 16, 24, 40]), **bounds),
            ShareWidth(percent=rng.choice([12.5, 25, 33.33, 40, 50, 66.67, 75, 100]), of=of),
            FixedWidth(width_px=rng.choice([120, 180, 240, 300, 320])),
            ColumnsWidth(
                columns=columns,
                take=rng.randint(1, columns - 1),
                gutter_px=rng.choice([8, 16, 20, 24, 32, 60]),
                of=of,
                **bounds,
            ),
            PercentColumnsWidth(
                columns=min(columns, 6), padding_percent=rng.choice([0, 0.5, 1, 2]), of=of
            ),
        ]
    )


@pytest.mark.parametrize("k", [1, 2, 3])
def test_the_first_rule_gives_all_rectangles_and_mostly_is_the_one_they_came_from(k):
    """200 random sites and rules; a browser lays out in steps of 1/64 px (docs/chromium.md)."""
    rng, v = random.Random(k), np.arange(320, 1921, dtype=float)
    tried = same = 0
    screens = [360, 390, 768, 834, 1024, 1280, 1440, 1600, 1920]
    while tried < 200:
        margin = rng.choice([0, 16, 20, 24, 40])
        container = Container(max_width_px=rng.choice([960, 1080, 1200, 1320]), margin_px=margin)
        rule, stands = some_rule(rng), rng.choice(["start", "centre", "end"])
        at_ = np.array(sorted(rng.sample(screens, k)), float)
        widths = np.floor(frame_widths(rule, at_, container) * 64) / 64
        left = standing_left(stands, rule, at_, widths, container)
        if (widths < 2).any():
            continue
        tried += 1
        seen = tuple(at(w, x, x + px) for w, x, px in zip(at_, left, widths, strict=True))
        first = rules(*seen, container=container, gutter_px=getattr(rule, "gutter_px", 20))[0]
        got = frame_widths(first.width, at_, container)
        assert np.abs(got - widths).max() <= 1
        assert first.stands is not None
        where = standing_left(first.stands, first.width, at_, got, container)
        assert np.abs(where - left).max() <= 2
        again = frame_widths(first.width, v, container)
        same += np.abs(again - frame_widths(rule, v, container)).max() <= 0.6
    # at one width nothing tells a share from px
    assert same >= (0 if k == 1 else 180)


@pytest.mark.parametrize("seed", range(40))
def test_heights_are_found_again(seed):
    rng = random.Random(seed)
    rule = rng.choice(
        [
            RatioHeight(w=rng.choice([16, 3, 4, 21]), h=rng.choice([9, 2, 5])),
            FixedHeight(height_px=rng.randint(100, 700)),
            ViewportHeight(percent=rng.randint(20, 100)),
        ]
    )
    screens = [(390, 844), (1440, 900)]
    seen = []
    for width, high in screens:
        h = float(frame_heights(rule, np.array([float(width)]), np.array([float(high)]), 1)[0])
        seen.append(at(width, 0, width, 10, 10 + h, viewport_height=high))
    height = rules(*seen)[0].height
    for s in seen:
        found = frame_heights(height, np.array([s.w]), np.array([float(s.viewport_height)]), 1)
        assert found[0] == pytest.approx(s.h, abs=1)


# -- the page's own lines --------------------------------------------------------------------


def test_edges_that_rectangles_share_are_the_container():
    """Cards of three columns at 1440, one under the other at 390; worked by hand."""
    cards = [at(1440, x, x + 320, 900, 1140) for x in (180, 560, 940)]
    wide = [at(1440, 0, 1440, 0, 600), at(1440, 180, 1260, 650, 850)]
    small = [at(390, 20, 370, 500 + 300 * n, 760 + 300 * n) for n in range(3)]
    lines = lines_of([*wide, *cards, *small], Container(max_width_px=960, margin_px=16))
    assert lines.container == Container(max_width_px=1080, margin_px=20)
    assert (lines.gutter_px, lines.columns) == (60, 3)


def test_nothing_is_said_of_what_is_not_shared():
    lines = lines_of([at(1440, 0, 1440), at(1440, 100, 500)], PAGE)
    assert (lines.container, lines.columns, lines.shared) == (None, None, 0)
    assert lines_of([], PAGE).container is None


def test_one_width_alone_leaves_the_margin_as_it_was():
    cards = [at(1440, x, x + 320, 0, 240) for x in (180, 560, 940)]
    assert lines_of(cards, PAGE).container == PAGE


@pytest.mark.parametrize(
    ("px", "known", "width"),
    [
        (1440, [], 1440),
        (2880, [], 1440),
        (780, [], 390),
        (1170, [], 390),
        (1280, [], 1280),
        (2560, [], 1280),
        (1600, [1600], 1600),
        (3200, [1600], 1600),
        (1111, [], 1111),
        (5000, [], 2500),
        (20000, [], 2560),
        (40, [], 320),
    ],
)
def test_the_width_that_a_design_was_drawn_for_is_guessed_from_its_px(px, known, width):
    """1440 at 1x and 2x, 390 at 2x and 3x (common practice); what the site's others have first."""
    assert guessed_width(px, known, 320, 2560) == width


# -- what cannot be ---------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("seen", "sentence"),
    [
        ({"width": 1440, "left": 10, "right": 10}, "0 px wide"),
        ({"width": 1440, "left": 10, "right": 4}, "0 px wide"),
        ({"width": 1440, "left": 10, "right": 1500}, "reaches out of a page"),
        ({"width": 1440, "left": -40, "right": 100}, "reaches out of a page"),
        ({"width": 1440, "left": 0, "right": 9, "top": 4}, "both a top and a bottom"),
        ({"width": 1440, "left": 0, "right": 9, "top": 4, "bottom": 4}, "0 px high"),
    ],
)
def test_rectangles_that_are_none_are_refused_with_a_sentence(seen, sentence):
    with pytest.raises(ValidationError) as refused:
        Seen.model_validate(seen)
    assert sentence in sentence_of(refused.value)


def test_two_rectangles_of_one_width_are_refused():
    with pytest.raises(ValidationError) as refused:
        rules(at(1440, 0, 10), at(1440, 0, 20))
    assert "same width" in sentence_of(refused.value)


def test_the_command_answers_line_by_line():
    asked = {"container": {"max_width_px": 1080, "margin_px": 20}, "gutter_px": 60}
    lines = [
        json.dumps({**asked, "seen": [{"width": 1440, "left": 180, "right": 500}]}),
        json.dumps({**asked, "seen": []}),
        "nothing",
        json.dumps({**asked, "seen": [{"width": 1440, "left": "x", "right": 1e400}]}),
    ]
    run = subprocess.run(
        [sys.executable, "-m", "skypane", "spots", "--batch"],
        input="\n".join(lines),
        capture_output=True,
        text=True,
        check=True,
    )
    first, *refused = (json.loads(line) for line in run.stdout.splitlines())
    assert first["rules"][0]["width"]["columns"] == 3 and first["rules"][0]["stands"] == "start"
    assert len(refused) == 3 and all("error" in r for r in refused)


def test_the_schema_in_the_documentation_is_true():
    committed = Path(__file__).parents[3] / "docs/spots.schema.json"
    assert json.loads(committed.read_text()) == Asked.model_json_schema()


def test_any_line_is_answered():
    for text in ("{}", "[]", '{"seen": [{"width": 0, "left": 0, "right": 0}]}', '{"seen": 3}'):
        assert "error" in answer(Asked, answer_spots, text)
