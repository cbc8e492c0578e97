"""Whether words can be read on what lies under them, at every width; what they cover; and what is
proposed. Against closed forms on pictures of one colour, and against looking at every width."""

import gc
from dataclasses import replace
from weakref import ref

import numpy as np
import pytest
from bannered import MAST, QUAY, WORDS, banner, halves, original, painted, planned
from skypane import model as m
from skypane.advice.aside import with_layout
from skypane.advice.walk import advise_part, applied
from skypane.advice.words import stand_ins, words_detail
from skypane.errors import InvalidPlan
from skypane.findings import findings_of
from skypane.handing_down import Origin
from skypane.kinds.banner.layout import laid_out
from skypane.layouts import begun, value_names
from skypane.reading import read, read_moving
from skypane.shown.clear import block_edges, covered, outgrown
from skypane.shown.flattest import flattest_ratio
from skypane.shown.keeps import all_whole, whole_picture
from skypane.shown.parts import replanned
from skypane.shown.places import ratings
from skypane.shown.readable import _looked, least_scrim, readable, seen_in
from skypane.words.contrast import ratio_of
from skypane.words.copies import copies

SMALL = m.Words(text="Crossings from the old jetty.")
BLANK = original()


def span(placement, letter="C", *originals, site=None):
    plan = planned(placement, *(originals or (BLANK,)), site=site)
    return plan.parts[0].of(letter)


# -- contrast ------------------------------------------------------------------------------


@pytest.mark.parametrize("grey", [0, 90, 118, 119, 255])
def test_on_one_colour_it_is_that_colours_contrast(grey):
    colour = f"#{grey:02x}{grey:02x}{grey:02x}"
    p = span(banner(words=SMALL))
    (text,) = seen_in(p, painted((grey, grey, grey)))
    assert text.worst == pytest.approx(ratio_of("#ffffff", colour), abs=0.02)
    assert text.mean == pytest.approx(ratio_of("#ffffff", colour), abs=0.02)
    assert text.passes == (grey <= 118)  # #767676 passes, #777777 fails


def test_large_text_passes_where_small_text_fails():
    heading, text = seen_in(
        span(banner(words=WORDS.model_copy(update={"buttons": ()}))), painted((140,) * 3)
    )
    assert (heading.needed, text.needed) == (3.0, 4.5)
    assert heading.passes and not text.passes


def test_a_button_is_read_on_its_own_colour():
    words = m.Words(buttons=(m.Button(label="Plan a crossing"),))
    look = {"button": {"fill": "#123456", "ink": "#fedcba"}}
    (button,) = seen_in(span(banner({"D": look}, words=words)), painted((200, 200, 200)))
    assert button.worst == pytest.approx(ratio_of("#fedcba", "#123456"), abs=0.01)


@pytest.mark.parametrize(
    ("layout", "expected"),
    [
        ({"shows": "below"}, "#d5d9da"),  # the background, which lies under everything
        ({"box": {"colour": "#204060", "strength": 1}}, "#204060"),
        ({"scrim": {"kind": "plain", "colour": "#204060"}, "strength": 1}, "#204060"),
    ],
)
def test_layers_lie_over_each_other(layout, expected):
    (text,) = seen_in(span(banner({"D": layout}, words=SMALL)), painted((200, 210, 250)))
    assert text.worst == pytest.approx(ratio_of("#ffffff", expected), abs=0.02)


def test_what_is_seen_through_shows_the_background():
    from skypane.words.copies import copies

    clear = copies(np.zeros((90, 160, 4), np.uint8))
    p = span(banner(words=SMALL))
    (text,) = seen_in(p, lambda o: clear)
    assert text.worst == pytest.approx(ratio_of("#ffffff", "#d5d9da"), abs=0.01)


def test_without_px_nothing_is_said_of_contrast():
    reading = read(m.Site(), banner(words=SMALL), {1: BLANK})
    assert reading.words.measured is False
    assert not [b for b in reading.words.bands if b.kind == "readable"]


def test_the_verdict_changes_where_looking_at_every_width_says():
    """Words move over the edge between a dark and a light half: the band's runs against every width
    looked at by itself."""
    layout = {"D": {"place": "start", "percent": 100, "margin_px": 20}}
    placement = banner(
        layout, {"D": m.Treatment(original=1, height=m.FixedHeight(height_px=500))}, words=SMALL
    )
    px = halves(60, 200)
    p = span(placement, "C")
    (text,) = seen_in(p, px)
    every = _looked(p, px, text.text, np.arange(len(p.viewport_w)))
    band = np.interp(np.arange(len(p.viewport_w)), text.columns, text.worst)
    wrong = (band >= text.needed) != (every.worst >= text.needed)
    assert wrong.mean() < 0.01
    assert 0 < (every.worst >= text.needed).mean() <= 1 or (every.worst < text.needed).all()


def test_viewport_heights_count_at_their_worst():
    """A dark half above a light one: in a frame of 60vh words in the middle lie on either."""
    rows = np.full((900, 1600, 3), 40, np.uint8)
    rows[450:] = 230
    from skypane.words.copies import copies

    px = copies(rows)
    tall = {"D": m.Treatment(original=1, height=m.ViewportHeight(percent=60))}
    p = span(banner({"D": {"place": "start"}}, tall, words=SMALL), "D")
    (text,) = seen_in(p, lambda o: px)
    assert p.W.shape[0] == 3 and not text.passes


# -- the least scrim -----------------------------------------------------------------------


def test_the_least_scrim_on_white_is_that_of_the_rule():
    """0.5347 for small text (rules §9), told as a whole per cent that passes."""
    p = span(banner(words=SMALL))
    px = painted((255, 255, 255))
    found = least_scrim(p, px, seen_in(p, px))
    assert found.scrim == m.PlainScrim(colour="#000000") and found.strength == 0.54
    dark = span(banner({"D": {"colour": "#000000"}}, words=SMALL))
    black = painted((0, 0, 0))
    # from the formula: black needs a luminance of 0.175, a white scrim of 0.4588 on black
    assert least_scrim(dark, black, seen_in(dark, black)).strength == 0.46


def test_where_words_can_be_read_the_least_is_none_at_all():
    p = span(banner(words=SMALL))
    px = painted((20, 20, 20))
    assert str(least_scrim(p, px, seen_in(p, px)).strength) == "0.0"


def test_a_button_that_cannot_be_read_gets_other_words_not_a_scrim():
    words = m.Words(text="Every day.", buttons=(m.Button(label="Plan"),))
    pale = {"D": {"button": {"fill": "#ffee88", "ink": "#ffffff"}}}
    placement = banner(pale, words=words)
    px = painted((20, 20, 20))
    detail = words_detail(planned(placement, BLANK).parts[0], "C", px)
    (advice,) = [a for a in detail.advice if a.problem == "unreadable"]
    assert (
        advice.sentence.startswith("The button cannot be read") and "its own colour" in advice.why
    )
    (step,) = advice.steps
    after = planned(applied(placement, 0, "C", step), BLANK).parts[0].of("C")
    assert all(s.passes for s in seen_in(after, px))
    # beside a text that cannot be read either, a scrim is still found for that
    light = painted((230, 230, 230))
    detail = words_detail(planned(placement, BLANK).parts[0], "C", light)
    (advice,) = [a for a in detail.advice if a.problem == "unreadable"]
    assert next(s.kind for s in advice.steps if s.works) == "scrim"
    assert advice.steps[0].figures["strength"] < 0.6


def test_several_texts_are_told_over_all_their_widths():
    """A heading that fails on narrow frames only, a text that fails everywhere."""
    words = m.Words(heading="The last light", text="Every day.")
    detail = words_detail(planned(banner(words=words), BLANK).parts[0], "C", painted((200,) * 3))
    (advice,) = [a for a in detail.advice if a.problem == "unreadable"]
    assert "The heading and the text cannot be read from 1024 to 1599 px" in advice.sentence
    assert "of the text" in advice.why  # it is furthest from what it needs


def test_where_no_strength_passes_it_is_said_with_what_does():
    clear = {
        "kind": "linear",
        "angle": 90,
        "stops": [{"at": 0, "alpha": 0}, {"at": 100, "alpha": 1}],
    }
    placement = banner({"D": {"scrim": clear, "place": "start", "percent": 30}}, words=SMALL)
    part = planned(placement, BLANK).parts[0]
    detail = words_detail(part, "C", painted((250, 250, 250)))
    assert detail.least_strength is None and "No strength" in detail.scrim_why
    (advice,) = [a for a in detail.advice if a.problem == "unreadable"]
    kinds = {(s.kind, s.works) for s in advice.steps}
    assert ("scrim", False) in kinds and ("scrim", True) in kinds  # its own, then a plain one
    assert ("ink", True) in kinds and ("box", True) in kinds


def test_every_remedy_for_reading_does_what_it_says():
    placement = banner(words=SMALL)
    plan = planned(placement, BLANK)
    px = painted((235, 235, 235))
    detail = words_detail(plan.parts[0], "C", px)
    (advice,) = [a for a in detail.advice if a.problem == "unreadable"]
    assert "cannot be read from 1024 to 1599 px" in advice.sentence
    for step in (s for s in advice.steps if s.works):
        after = planned(applied(placement, 0, "C", step), BLANK)
        assert all(s.passes for s in seen_in(after.parts[0].of("C"), px)), step.kind
        for letter in "ABD":  # nothing but this span changes, where the remedy says how
            if letter == "D":
                assert after.parts[0].of(letter).spot.values == plan.parts[0].of(letter).spot.values


def test_a_remedy_says_which_narrower_spans_it_is_handed_down_to():
    """What it sets is the span's alone; B and A have nothing of their own, unless they say so."""
    said = {"D": {}, "A": {"scrim": {"kind": "plain"}}}
    for layout, follow in (({}, ("B", "A")), (said, ("B",))):
        placement = banner(words=SMALL)
        placement = placement.model_copy(update={"layout": {**placement.layout, **layout}})
        reading = read(
            m.Site(), placement, {1: BLANK}, pixels=painted((235,) * 3), chosen=(0, "C"), words=True
        )
        step = reading.words.detail.advice[0].steps[0]
        assert step.kind == "scrim"
        after = planned(applied(placement, 0, "C", step), BLANK)
        before = planned(placement, BLANK)
        values = {x: [p.parts[0].of(x).spot.values for p in (before, after)] for x in "ABCD"}
        assert tuple(x for x in "BA" if values[x][0] != values[x][1]) == step.follow == follow
        assert values["C"][0] != values["C"][1] and values["D"][0] == values["D"][1]


def test_the_background_alone_has_to_do():
    plan = planned(banner(words=SMALL), BLANK)
    px = painted((30, 60, 90))
    detail = words_detail(plan.parts[0], "C", px)
    (advice,) = [a for a in detail.advice if a.problem == "before-loading"]
    colour = advice.steps[0].treatment.background
    assert colour == "#1e3c5a"  # the picture's own colour is deep enough
    assert any(f.rule == "unreadable-before-loading" for f in findings_of(plan))
    deep = {"D": m.Treatment(original=1, height=m.RatioHeight(w=2, h=1), background=colour)}
    found = findings_of(planned(banner(treatments=deep, words=SMALL), BLANK), px)
    assert not [f for f in found if f.step == "words"]


# -- places and areas ----------------------------------------------------------------------


def test_the_best_place_is_dark_and_clear():
    """Dark on the left, light on the right; a mast on the left half, half way down."""
    mast = original(areas=(m.Area(name="Mast", rect=m.Rect(x=0.05, y=0.4, w=0.3, h=0.2)),))
    p = span(banner({"D": {"place": "end", "percent": 30}}, words=SMALL), "C", mast)
    found = {r.place: r for r in ratings(p, halves(40, 240))}
    assert len(found) == 9
    assert [place for place, r in found.items() if r.covers] == ["start"]
    (best,) = [place for place, r in found.items() if r.best]
    assert best in ("top-start", "bottom-start")
    assert found["end"].contrast < 1 <= found[best].contrast


def test_a_quiet_area_is_preferred():
    sky = m.Area(name="Sky", kind="quiet", rect=m.Rect(x=0, y=0.55, w=1, h=0.45))
    quiet = original(areas=(sky,))
    p = span(banner({"D": {"place": "end", "percent": 25}}, words=SMALL), "C", quiet)
    found = {r.place: r for r in ratings(p, painted((20, 20, 20)))}
    best = next(r for r in found.values() if r.best)
    assert best.place.startswith("bottom") and best.quiet > 0.95
    assert found["top"].quiet == 0


def test_words_on_an_area_are_measured_and_told():
    over = {"D": {"place": "end", "percent": 40, "margin_px": 20}}
    plan = planned(banner(over, words=SMALL), QUAY)
    p = plan.parts[0].of("C")
    share = covered(p, block_edges(p))["Mast"]
    # by hand at one width: a 2:1 frame of 1280 shows all of a 16:9 picture's width
    i, laid = 1280 - 1024, laid_out(p.spot)
    s = p.shown
    top = MAST.rect.y * s.drawn_h[0, i] - s.y0[0, i] * s.drawn_h[0, i]
    mast = (0.7 * 1280, 0.8 * 1280, top, top + 0.6 * s.drawn_h[0, i])
    (t,) = laid.block.texts
    x0, y0 = laid.words.x[0, i] + t.x[i], laid.words.y[0, i] + t.y[i]
    across = min(mast[1], x0 + t.w[i]) - max(mast[0], x0)
    down = min(mast[3], y0 + t.h[i]) - max(mast[2], y0)
    area = (mast[1] - mast[0]) * (mast[3] - mast[2])
    assert share[i] == pytest.approx(across * down / area, rel=1e-6)
    assert any(f.rule == "words-on-area" and "Mast" in f.sentence for f in findings_of(plan))
    (band,) = [
        b
        for b in read(m.Site(), banner(over, words=SMALL), {1: QUAY}).words.bands
        if b.kind == "clear"
    ]
    assert {r.verdict for r in band.runs} == {"covered"}


def test_moving_them_out_of_the_way_is_proposed():
    over = {"D": {"place": "end", "percent": 30, "margin_px": 20}}
    placement = banner(over, words=SMALL)
    detail = words_detail(planned(placement, QUAY).parts[0], "C", painted((10, 10, 10)))
    (advice,) = [a for a in detail.advice if a.problem == "covers"]
    best = advice.steps[advice.best]
    assert best.kind == "place"
    after = planned(applied(placement, 0, "C", best), QUAY).parts[0].of("C")
    assert not covered(after, block_edges(after))


def test_words_that_do_not_fit_are_told_from_which_width_and_what_would():
    flat = {"D": m.Treatment(original=1, height=m.RatioHeight(w=6, h=1))}
    placement = banner({"D": {"percent": 50, "heading_px": 44}}, flat)
    plan = planned(placement, BLANK)
    p = plan.parts[0].of("C")
    over = np.flatnonzero(outgrown(p))
    detail = words_detail(plan.parts[0], "C", painted((10,) * 3))
    (advice,) = [a for a in detail.advice if a.problem == "outgrows"]
    assert f"from 1024 to {1024 + over[-1]} px" in advice.sentence
    helped = {s.kind for s in advice.steps if s.works}
    assert {"higher", "below"} <= helped
    for step in (s for s in advice.steps if s.works):
        after = planned(applied(placement, 0, "C", step), BLANK).parts[0].of("C")
        assert not outgrown(after).any(), step.kind
    (band,) = [b for b in read(m.Site(), placement, {1: BLANK}).words.bands if b.kind == "fits"]
    assert any(r.verdict == "grows" for r in band.runs)


def test_a_word_too_long_for_its_line_is_found():
    long = m.Words(heading="Lighthousekeepersassociation")
    plan = planned(banner({"D": {"percent": 30, "heading_px": 60}}, words=long), BLANK)
    found = [f for f in findings_of(plan) if f.rule == "word-broken"]
    assert len(found) == 1 and found[0].spans == ("A", "B", "C", "D")
    assert "broken in two from 320 to 2560 px" in found[0].sentence


# -- with the picture's own advice ---------------------------------------------------------


def test_words_aside_joins_the_advice():
    """An area that no flat frame holds, with words on it: not simply shown whole, but with the
    words below."""
    tall = original(areas=(m.Area(name="Tower", rect=m.Rect(x=0.6, y=0, w=0.1, h=1)),))
    placement = banner(
        {"D": {"percent": 30}}, {"D": m.Treatment(original=1, height=m.RatioHeight(w=4, h=1))}
    )
    plan = planned(placement, tall)
    (advice,) = advise_part(plan.parts[0], {1: tall}, 10**6, "C", plan.handed_of_kind)
    kinds = [s.kind for s in advice.steps]
    assert (
        kinds.index("whole") < kinds.index("ratio") < kinds.index("words") < kinds.index("colour")
    )
    by = {s.kind: s for s in advice.steps}
    assert not by["whole"].works and "Words lie on the picture" in by["whole"].why
    assert by["words"].works and by["words"].layout == {"shows": "below", "percent": 100}
    after = planned(applied(placement, 0, "C", by["words"]), tall).parts[0].of("C")
    assert all_whole(after.shown, after.keeps, whole_picture(after))
    assert after.spot.values.shows == "below"


def test_the_flattest_ratio_holds_and_a_flatter_one_does_not():
    mast = original(areas=(m.Area(name="Mast", rect=m.Rect(x=0.7, y=0.3, w=0.05, h=0.4)),))
    p = span(banner({"D": {"percent": 40, "margin_px": 20}}), "C", mast)
    ratio = flattest_ratio(p)

    def holds(r):
        rule = m.Treatment(height=m.RatioHeight(w=r, h=1))
        q = replanned(p, rule, p.original)
        clear = not covered(q, block_edges(q)) and not outgrown(q).any()
        return clear and all_whole(q.shown, q.keeps, whole_picture(q))

    assert holds(ratio) and not holds(ratio * 1.03)


def test_stand_ins_hold_their_area_even_when_round():
    (mast,) = stand_ins(planned(banner(), QUAY).parts[0])
    c = mast.crop
    w, h = c.w * 1600, c.h * 900
    assert w == pytest.approx(h)
    for x in (MAST.rect.x, MAST.rect.x1):
        for y in (MAST.rect.y, MAST.rect.y1):
            dx, dy = (x - c.x - c.w / 2) * 1600, (y - c.y - c.h / 2) * 900
            assert dx * dx + dy * dy <= (w / 2) ** 2 + 1e-6


def test_words_that_are_off_are_asked_for_as_alt_text():
    off = {"D": {"percent": 40}, "A": {"shows": "off"}}

    def rules(alt):
        own = original(alt=alt)
        return {f.rule: f for f in findings_of(planned(banner(off), own))}

    silent = rules("A quay at dusk")["lettering-not-read"]
    assert silent.spans == ("A",) and "The last light" in silent.sentence
    assert "lettering-not-read" not in rules("The last  light before the OPEN sea, a quay at dusk")


# -- the reading ---------------------------------------------------------------------------


def test_what_moves_is_read_as_the_whole_is():
    over = banner({"D": {"place": "end", "percent": 35}})
    px = halves(50, 180)
    whole = read(m.Site(), over, {1: QUAY}, pixels=px, chosen=(0, "C"), words=True)
    moving = read_moving(m.Site(), over, {1: QUAY}, pixels=px)
    assert moving.words.bands == whole.words.bands
    assert moving.words.spans == whole.words.spans
    assert moving.words.detail is None and whole.words.detail.letter == "C"
    # what can be done is worked out only where it is asked for
    assert read(m.Site(), over, {1: QUAY}, pixels=px, chosen=(0, "C")).words.detail is None


def test_a_reading_tells_where_every_text_is():
    over = banner({"D": {"place": "bottom-end", "percent": 35}})
    reading = read(m.Site(), over, {1: QUAY})
    c = next(s for s in reading.words.spans if s.letter == "C")
    laid = laid_out(planned(over).spots[2])
    for told, text in zip(c.texts, laid.block.texts, strict=True):
        assert (told.name, told.lines[0].lines) == (text.name, int(text.lines[0]))
        for points, values in ((told.w, text.w), (told.h, text.h)):
            xs, ys = zip(*points.points, strict=True)
            off = np.interp(np.arange(1024, 1600), xs, ys) - values
            assert np.abs(off).max() <= 0.51
    assert (
        reading.words.spans[0].origin["percent"] == Origin("D", "kind")
        and not reading.words.spans[0].own
    )


def test_another_scrim_is_another_print():
    """The desk names the spans that a step leaves exactly as they were."""

    def prints(layout):
        reading = read(m.Site(), banner(layout), {1: QUAY})
        return {s.letter: s.fingerprint for s in reading.parts[0].spans}

    before, after = (
        prints({}),
        prints({"B": {"scrim": {"kind": "plain"}}, "A": {"scrim": {"kind": "none"}}}),
    )
    assert [k for k in "ABCD" if before[k] != after[k]] == ["B"]


def test_a_plain_picture_has_no_words():
    plain = m.picture("Quay", {"D": m.Treatment(original=1)})
    reading = read(m.Site(), plain, {1: QUAY})
    assert reading.words is None and reading.one_of is None


def test_a_set_is_told_as_a_band():
    one = banner(name="wide", one_of="head")
    other = banner(name="narrow", one_of="head")
    reading = read(m.Site(), one, {1: QUAY}, siblings=lambda: [other])
    (run,) = reading.one_of.runs
    assert (run.verdict, run.worst, run.first, run.last) == ("several", 2, 320, 2560)


def test_a_picture_becomes_a_banner_and_a_picture_again():
    plain = m.Placement(name="Quay", parts=(m.Part(treatments={"D": m.Treatment(original=1)}),))
    over = begun("banner", m.Site(), plain)
    assert over.words.heading == "Quay" and set(over.layout) == {"A"}
    assert not any(f.rule == "words-outgrow" for f in read(m.Site(), over, {1: QUAY}).findings)
    marked = over.model_copy(update={"parts": (*over.parts, m.Part(role="mark"))})
    assert begun("picture", m.Site(), marked) == plain
    with pytest.raises(InvalidPlan, match="no kind of placement called poster"):
        begun("poster", m.Site(), plain)
    # every value of it has a name for lists and history
    assert {f for f, name in value_names("banner").items() if f == name} == {"scrim"}


@pytest.mark.slow
def test_another_place_is_offered_only_where_the_words_are_clear_and_read():
    """Alignment, width and size are tried together with the place: what is offered is tried over
    the whole span, and where nothing serves it says so."""
    flower = m.Area(name="Flower", rect=m.Rect(x=0.55, y=0.05, w=0.4, h=0.9))
    for words in (WORDS, m.Words(heading="Where the terns nest, and when they leave")):
        for align in ("start", "centre", "end"):
            for percent in (30, 45, 60):
                layout = {"D": {"place": "end", "align": align, "percent": percent}}
                o = original(areas=(flower,))
                made = planned(banner(layout, words=words), o)
                part = made.parts[0]
                for letter in "ABCD":
                    detail = words_detail(part, letter, painted((20, 30, 40)))
                    for a in detail.advice:
                        for step in (s for s in a.steps if s.works and s.kind == "place"):
                            q = with_layout(part.of(letter), step.layout)
                            assert not covered(q, block_edges(q)), (letter, step.label)
                            assert not outgrown(q).any(), (letter, step.label)
                            assert readable(q, painted((20, 30, 40))), (letter, step.label)


def test_what_was_read_keeps_no_px_alive():
    """However often the px are let go and opened again, and however many there were."""
    opened = []

    def again(original):
        px = copies(np.full((900, 1600, 3), 90, np.uint8))
        opened.append(ref(px))
        return px

    found = planned(banner())
    (part,) = found.parts
    first = [seen_in(p, again) for p in part.spans]
    assert opened and all(first)
    gc.collect()
    assert not any(px() for px in opened)
    n = len(opened)
    # and is known without them
    assert [seen_in(p, again) for p in part.spans] == first and len(opened) == n


def test_what_could_not_be_had_is_asked_for_again():
    px = copies(np.full((900, 1600, 3), 90, np.uint8))
    answers = [None, px]
    (part,) = planned(banner()).parts
    p = part.spans[-1]

    def late(original):
        return answers.pop(0) if len(answers) > 1 else answers[0]

    assert seen_in(p, late) == () and seen_in(p, late)


def test_the_largest_copy_is_asked_for_where_it_is_drawn_from_alone():
    whole = copies(np.random.default_rng(2).integers(0, 255, (900, 1600, 3), dtype=np.uint8))
    asked = []

    def largest():
        asked.append(1)
        return whole.by_width[0]

    split = replace(whole, by_width=whole.by_width[1:], larger=(1600, largest))
    for width in (40, 300, 799, 800, 801, 1200, 1600, 2400):
        before = len(asked)
        got = split.for_drawing(width, width)
        assert got is whole.for_drawing(width, width)
        assert (len(asked) > before) == (got.shape[1] == 1600)
