"""The reading: compact, and what it says at any width is what the rules say there."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from planned import by_density, read_part, span_plans
from skypane.geometry import Rect
from skypane.model import (
    Area,
    FixedHeight,
    FixedWidth,
    Original,
    RatioHeight,
    Site,
    Treatment,
    ViewportHeight,
    picture,
)
from skypane.proof import FileFact, cases, delivered, predict
from skypane.widths.curves import simplified
from skypane.widths.frames import typical_height
from skypane.widths.runs import merged, runs_of

BOATS = Original(
    id=1,
    name="four-boats.jpg",
    width_px=5200,
    height_px=2900,
    focal=(0.6, 0.72),
    alt="Four boats",
    areas=(
        Area(name="Sail boat", rect=Rect(x=0.493, y=0.405, w=0.237, h=0.48)),
        Area(name="Green boat", rect=Rect(x=0.735, y=0.518, w=0.249, h=0.35)),
        Area(name="Yellow boat", rect=Rect(x=0.322, y=0.69, w=0.134, h=0.168)),
        Area(name="Red boat", rect=Rect(x=0.06, y=0.51, w=0.162, h=0.385)),
        Area(name="Sky", rect=Rect(x=0.05, y=0.03, w=0.9, h=0.32), kind="quiet"),
    ),
)
P = picture(
    name="Four boats",
    treatments={
        "D": Treatment(original=1, height=RatioHeight(w=2.4, h=1)),
        "C": Treatment(height=RatioHeight(w=2, h=1)),
        "B": Treatment(height=RatioHeight(w=3, h=2)),
        "A": Treatment(height=RatioHeight(w=4, h=5)),
    },
)


def band(reading, name):
    return [
        (r.first, r.last, r.verdict) for r in next(b for b in reading.bands if b.name == name).runs
    ]


def test_bands_say_for_every_width_which_area_is_whole_cut_or_lost():
    reading = read_part(Site(), P, {1: BOATS})
    assert band(reading, "Sail boat") == [(320, 2560, "whole")]
    assert band(reading, "Red boat") == [(320, 1023, "lost"), (1024, 2560, "whole")]
    assert band(reading, "Yellow boat") == [(320, 599, "lost"), (600, 2560, "whole")]
    assert band(reading, "Green boat")[0] == (320, 599, "cut")
    assert [b.name for b in reading.bands if b.kind == "area"] == [
        "Sail boat",
        "Green boat",
        "Yellow boat",
        "Red boat",
    ]


def test_what_holds_the_picture_is_named():
    spans = {s.letter: s for s in read_part(Site(), P, {1: BOATS}).spans}
    assert "Green boat" in spans["B"].held_by


def test_the_chosen_span_alone_is_read_in_detail_and_every_failing_one_is_found():
    everything, b = read_part(Site(), P, {1: BOATS}), read_part(Site(), P, {1: BOATS}, chosen="B")
    assert [a.span for a in everything.advice] == ["A", "B"] and everything.detail is None
    assert (
        b.advice == everything.advice[1:]
        and b.findings == everything.findings
        and b.bands == everything.bands
    )
    assert (b.detail.letter, b.detail.aims, b.detail.crop.width_px) == ("B", (), 5200)
    costs = read_part(Site(), P, {1: BOATS}, chosen="B", costs=True).detail
    assert [c.aim.kind for c in costs.aims] == [
        "following",
        "following",
        "fixed",
    ] and costs.percents is not None


def test_a_soft_file_is_a_band_a_row_and_a_finding():
    small = BOATS.model_copy(update={"width_px": 1600, "height_px": 892})
    reading = read_part(by_density(), P, {1: small})
    sharp = next(b for b in reading.bands if b.name == "Sharp at 2x")
    assert sharp.runs[-1].verdict == "soft" and sharp.runs[-1].worst == pytest.approx(
        1600 / 5120, abs=0.001
    )
    row = next(f for f in reading.files if f.spans == ("D",))
    assert (
        row.width_px == 1600
        and row.share == pytest.approx(1600 / 2560, abs=0.001)
        and row.sharp_to_density < 1
    )
    assert any(f.rule == "soft" and "D" in f.spans for f in reading.findings)


def test_the_px_that_a_frame_needs_are_told_for_every_width():
    sharp = next(b for b in read_part(Site(), P, {1: BOATS}).bands if b.name == "Sharp at 2x")
    xs, ys = zip(*sharp.needed.points, strict=True)
    assert [round(np.interp(w, xs, ys)) for w in (360, 599, 600, 632, 2560)] == [
        720,
        1198,
        1200,
        1264,
        5120,
    ]


def test_weight_is_told_from_files_that_have_been_made():
    reading = read_part(
        Site(budget_bytes=100_000),
        P,
        {1: BOATS},
        made_bytes=lambda keys: dict.fromkeys(keys, 120_000),
    )
    weight = next(b for b in reading.bands if b.kind == "weight")
    assert {r.verdict for r in weight.runs} == {"heavy"} and weight.runs[0].worst == 1.2
    unknown = next(b for b in read_part(Site(), P, {1: BOATS}).bands if b.kind == "weight")
    assert {r.verdict for r in unknown.runs} == {"unknown"}


def test_findings_name_what_is_missing():
    nothing = read_part(Site(), picture(name="x"), {})
    assert [f.rule for f in nothing.findings] == ["no-original"] and nothing.code.markup == ()
    no_alt = read_part(Site(), P, {1: BOATS.model_copy(update={"alt": None})})
    assert [f.rule for f in no_alt.findings] == ["area"] * 3 + ["no-alt"]
    decorative = read_part(Site(), P, {1: BOATS.model_copy(update={"alt": ""})})
    assert [f.rule for f in decorative.findings] == ["area"] * 3
    # one matter over several spans is one finding, with its widths
    red = next(f for f in decorative.findings if f.sentence.startswith("Red boat"))
    assert red.sentence.startswith("Red boat is lost from 320 to ")
    assert "px: 100 % of it is out of view at 320" in red.sentence


def test_a_frame_wider_than_the_page_is_found_with_its_widths():
    p = picture(name="x", treatments={"D": Treatment(original=1, width=FixedWidth(width_px=700))})
    finding = next(
        f for f in read_part(Site(), p, {1: BOATS}).findings if f.rule == "wider-than-page"
    )
    assert finding.spans == ("A", "B")
    assert "from 320 to 699 px and scrolls it sideways, by up to 380 px" in finding.sentence


def test_a_frame_in_vh_is_read_at_all_heights_of_the_span():
    p = picture(
        name="x", treatments={"D": Treatment(original=1, height=ViewportHeight(percent=100))}
    )
    reading = read_part(Site(), p, {1: BOATS})
    a = reading.spans[0]
    assert a.viewport_heights == (560, 932) and a.frame_text == "100vh"
    assert a.safe is not None and a.outline is not None
    assert a.safe.w < a.outline.w


@given(st.integers(320, 2560), st.sampled_from(["frame_w", "frame_h", "x0", "x1", "drawn_w"]))
def test_curves_say_the_same_as_the_rule_at_every_width(width, name):
    p = picture(
        name="x", treatments={"D": Treatment(original=1, height=FixedHeight(height_px=500))}
    )
    curve = getattr(next(s for s in FIXED.spans if s.first <= width <= s.last), name)
    xs, ys = zip(*curve.points, strict=True)
    plan = next(
        q for q in span_plans(Site(), p, {1: BOATS}) if q.span.first <= width <= q.span.last
    )
    i = width - plan.span.first
    exact = {
        "frame_w": plan.W[0][i],
        "frame_h": plan.H[0][i],
        "x0": plan.shown.x0[0][i],
        "x1": plan.shown.x1[0][i],
        "drawn_w": plan.drawn_cut_width[0][i],
    }[name]
    assert np.interp(width, xs, ys) == pytest.approx(
        exact, abs=0.51 if "w" in name or "h" in name else 1.01e-3
    )


FIXED = read_part(
    Site(),
    picture(name="x", treatments={"D": Treatment(original=1, height=FixedHeight(height_px=500))}),
    {1: BOATS},
)


def test_a_reading_is_compact():
    assert len(read_part(Site(), P, {1: BOATS}).whole.model_dump_json()) < 40_000


@given(st.lists(st.floats(-100, 100), min_size=2, max_size=60), st.floats(0.01, 5))
def test_simplified_curves_stay_within_their_tolerance(values, tolerance):
    v = np.arange(len(values), dtype=float)
    curve = simplified(v, np.array(values), tolerance)
    xs, ys = zip(*curve.points, strict=True)
    assert np.abs(np.interp(v, xs, ys) - values).max() <= tolerance + 1e-4


def test_runs_join_across_spans():
    v = np.arange(1.0, 7.0)
    runs = runs_of(
        v,
        np.array(["whole", "whole", "cut", "cut", "cut", "whole"]),
        np.array([1, 1, 0.9, 0.6, 0.8, 1.0]),
    )
    assert [(r.first, r.last, r.worst, r.worst_at) for r in runs] == [
        (1, 2, 1, 1),
        (3, 5, 0.6, 4),
        (6, 6, 1, 6),
    ]
    joined = merged(
        [runs[0], runs[0].model_copy(update={"first": 3, "last": 9, "worst": 0.7, "worst_at": 5})]
    )
    assert len(joined) == 1 and (joined[0].first, joined[0].last, joined[0].worst_at) == (1, 9, 5)


def test_typical_heights():
    assert [typical_height(Site(), w) for w in (360, 768, 1280, 1920)] == [640, 1024, 800, 1080]


def test_predictions_try_both_bounds_of_every_span():
    reading = read_part(by_density(), P, {1: BOATS})
    asked = cases(Site(), (1, 2))
    assert [c.width for c in asked[::2]] == [320, 599, 600, 1023, 1024, 1599, 1600, 2560]
    facts = {"images/four-boats--a.avif": FileFact(width_px=599, height_px=749, size_bytes=5)}
    shown = delivered(reading.code.markup_text, reading.code.css_text, "four-boats")
    assert not shown.background and not shown.asks_for_orientation
    found = predict(Site(), shown, facts, asked)
    assert (
        found[0].url == "images/four-boats--a.avif"
        and found[0].file is not None
        and found[0].span == "A"
    )
    old = predict(Site(), shown, {}, cases(Site(), (1,), "jpeg"))
    assert {p.element for p in found} == {"four-boats"}
    assert old[0].url == "images/four-boats--a.jpg" and old[-1].url == "images/four-boats.jpg"
