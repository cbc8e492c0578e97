"""A reading of a placement as it is seen under conditions: panes, verdicts, bands and findings."""

import numpy as np
from bannered import WORDS, painted
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.model.tiny import Tiny
from skypane.picks import Environment, pick
from skypane.reading import read, read_moving
from skypane.shown.plan import plan

SITE = m.Site(breakpoints=(1023,))
TOWER = m.Area(name="Tower", rect=m.Rect(x=0.75, y=0.1, w=0.2, h=0.8))


def picture(id, w=1600, h=900, *areas):
    name = f"{id}.jpg"
    return m.Original(
        id=id, name=name, width_px=w, height_px=h, sha256=str(id), alt="", areas=areas
    )


DAY, NIGHT = picture(1), picture(2, 1600, 900, TOWER)
ALL = {1: DAY, 2: NIGHT}
DARK = m.Conditions(dark=True)


def quay(**values):
    """By day the whole picture; in the dark a square of another one, whose tower is lost."""
    usual = m.Treatment(original=1, height=m.RatioHeight(w=16, h=9))
    dark = m.Treatment(original=2, height=m.RatioHeight(w=1, h=1), aim=m.FixedAim(x=0, y=0))
    parts = (
        m.Part(key="a", treatments={"B": usual}),
        m.Part(of="a", when=("dark",), treatments={"B": dark}),
    )
    return m.Placement(**{"name": "Quay", "parts": parts, **values})


def words_of(reading, width=1200, density=1):
    (runs,) = (v.runs for v in reading.verdicts if v.density == density)
    return next(r.word for r in runs if r.first <= width <= r.last)


def shown(reading, **asked):
    return pick(reading.pane.markup, Environment(width=1200, height=800, **asked)).url


def test_panes_show_what_is_seen_whatever_the_browser_around_them_asks_for():
    usual, dark = (read(SITE, quay(), ALL, conditions=c) for c in (m.AS_USUAL, DARK))
    for scheme in ("light", "dark"):
        assert shown(usual, color_scheme=scheme) == "1.jpg"
        assert shown(dark, color_scheme=scheme) == "2.jpg"


def test_verdicts_are_of_what_is_seen():
    usual, dark = (read(SITE, quay(), ALL, conditions=c) for c in (m.AS_USUAL, DARK))
    assert words_of(usual) != words_of(dark) == "0 of 1 whole"
    # files, findings and code are of all there is
    assert usual.files == dark.files and usual.findings == dark.findings
    assert usual.code == dark.code and usual.parts == dark.parts


def test_what_moves_is_seen_under_them_too():
    dark = read_moving(SITE, quay(), ALL, conditions=DARK)
    assert "2.jpg" in dark.pane.markup and words_of(dark) == "0 of 1 whole"


def test_what_is_wrong_in_the_dark_alone_is_found_whoever_looks():
    (found,) = [f for f in read(SITE, quay(), ALL).findings if f.rule == "area"]
    assert found.when == ("dark",) and found.part == 1


def test_where_pictures_are_not_there_nothing_is_said_of_them():
    coming = read(SITE, quay(), ALL, conditions=m.Conditions(pictures="coming", dark=True))
    assert words_of(coming) == "only colour"
    assert "jpg" not in coming.pane.markup and "background: #d5d9da" in coming.pane.css


def test_of_pictures_that_failed_a_pane_asks_and_says_what_they_show():
    failed = read(SITE, quay(), ALL, conditions=m.Conditions(pictures="failed", dark=True))
    assert words_of(failed) == "alt text alone" and shown(failed) == "2.jpg"


def test_screens_can_all_stand_upright():
    """A frame as high as half the window is higher on screens that are."""
    half = m.Treatment(original=1, height=m.ViewportHeight(percent=50))
    made = m.Placement(name="Quay", parts=(m.Part(treatments={"B": half}),))
    usual = read(SITE, made, ALL)
    upright = read(SITE, made, ALL, conditions=m.Conditions(turn="upright"))
    low, high = (
        float(np.interp(1280, *zip(*r.parts[0].spans[-1].frame_h.points, strict=True)))
        for r in (usual, upright)
    )
    assert (low, high) == (
        400,
        0.5 * next(h.typical_px for h in upright.heights if h.to_px >= 1280),
    )
    assert all(h.typical_px >= h.to_px for h in upright.heights)


# -- words ------------------------------------------------------------------------------------


def banner(**under):
    """White words on a dark picture by day; in the dark they are black unless told otherwise."""
    part = m.Part(treatments={"B": m.Treatment(original=1, background="#202020")})
    over = m.LayoutUnder(when=("dark",), layout={"B": {"colour": "#000000", **under}})
    return m.Placement(name="Quay", kind="banner", parts=(part,), words=WORDS, layout_under=(over,))


pixels = painted((20, 20, 20))


def bands_of(reading):
    return {
        b.name: {r.verdict for r in b.runs} for b in reading.words.bands if b.kind == "readable"
    }


def test_contrast_is_a_band_under_each_condition():
    by_day, by_night = (
        read(SITE, banner(), ALL, pixels=pixels, conditions=c) for c in (m.AS_USUAL, DARK)
    )
    assert bands_of(by_day)["Heading readable"] == {"readable"}
    assert bands_of(by_night)["Heading readable"] == {"faint"}
    values = by_night.layout[-1]
    assert values.values.colour == "#000000" and values.origin["colour"].of == "kind"
    assert by_day.layout[-1].values.colour == "#ffffff"


def test_words_that_cannot_be_read_in_the_dark_are_found_by_day():
    found = [f for f in read(SITE, banner(), ALL, pixels=pixels).findings if f.when]
    assert {f.rule for f in found} == {"unreadable", "unreadable-before-loading"}
    for each in found:
        assert each.when == ("dark",) and each.sentence.startswith("In the dark the heading")
    # they are no verdict of the day
    assert "unreadable" not in words_of(read(SITE, banner(), ALL, pixels=pixels))


def test_what_is_so_as_usual_is_told_once():
    white = read(SITE, banner(colour="#ffffff"), ALL, pixels=pixels)
    assert not [f for f in white.findings if f.when]
    grey = banner(colour="#ffffff").model_copy(update={"layout": {"B": {"colour": "#111111"}}})
    found = read(SITE, grey, ALL, pixels=pixels).findings
    assert [f.when for f in found if f.rule == "unreadable"] == [()]


def test_the_least_scrim_is_found_for_each():
    """What does for white words on a light picture by day is not what black ones need."""

    def least(conditions):
        made = banner().model_copy(update={"layout": {"B": {"scrim": {"kind": "plain"}}}})
        return read(
            SITE,
            made,
            ALL,
            pixels=painted((150, 150, 150)),
            conditions=conditions,
            chosen=(0, "B"),
            words=True,
        ).words.detail.least_strength

    assert least(m.AS_USUAL) is not None and least(m.AS_USUAL) != least(DARK)


def test_words_are_read_on_what_shows_upright_where_typical_screens_stand_so():
    """Viewports up to 1023 px are higher than wide: what shows in portrait lies under the words."""
    by_day = m.Part(key="a", treatments={"B": m.Treatment(original=1)})
    upright = m.Part(of="a", when=("portrait",), treatments={"B": m.Treatment(original=2)})
    made = m.Placement(name="Quay", kind="banner", parts=(by_day, upright), words=WORDS)
    dark, light = painted((20, 20, 20)), painted((230, 230, 230))

    def on(original):
        return (light if original.id == 2 else dark)(original)

    reading = read(SITE, made, ALL, pixels=on)
    (band,) = (b for b in reading.words.bands if b.name == "Heading readable")
    assert [(r.first, r.last, r.verdict) for r in band.runs] == [
        (320, 1023, "faint"),
        (1024, 2560, "readable"),
    ]
    at, ratios = zip(*band.curve.points, strict=True)
    assert np.interp(1023, at, ratios) < 3 < np.interp(1024, at, ratios)
    assert words_of(reading, 800) != words_of(reading, 1200)


# -- what is seen in the place of pictures, and which formats are known ----------------------


def test_until_pictures_are_there_something_of_them_is_seen_where_it_is_wanted():
    coming = m.Conditions(pictures="coming")
    tiny = Tiny.of(1, bytes([1, 2, 3]))
    there = {i: o.model_copy(update={"tiny": tiny}) for i, o in ALL.items()}
    found = read(SITE, quay(blurred=True), there, conditions=coming)
    assert words_of(found) == "blurred" and "data:image/png" in found.pane.css
    # panes ask for their pictures, and are told that they are not there yet
    assert shown(found) == "1.jpg"


def test_where_pictures_do_not_come_another_one_is_told():
    failed = m.Conditions(pictures="failed")
    found = read(SITE, quay(substitute=2), ALL, conditions=failed)
    assert words_of(found) == "another picture" and "data-instead" in found.pane.markup


def test_what_shows_no_picture_shows_none_when_they_are_missing():
    part = m.Part(treatments={"B": m.Treatment(original=1), "A": m.Treatment(show="colour")})
    alone = m.Placement(name="Quay", parts=(part,), blurred=True)
    found = read(SITE, alone, ALL, conditions=m.Conditions(pictures="coming"))
    assert words_of(found, 500) == "only colour" and words_of(found, 1200) == "blurred"


def test_bands_of_weight_are_of_the_formats_that_are_known():
    sizes = {"avif": 10_000, "webp": 20_000, "jpeg": 40_000}
    files = {r.key: r for _, made in renditions(plan(SITE, quay(), ALL)) for r in made}

    def made(keys):
        return {k: sizes[files[k].format] for k in keys if k in files}

    for knows, size in sizes.items():
        seen = m.Conditions(knows=knows)
        found = read(SITE, quay(), ALL, made_bytes=made, conditions=seen)
        (weight,) = (b for b in found.parts[0].bands if b.kind == "weight")
        assert {y for _, y in weight.curve.points} == {size}
        assert found.files == read(SITE, quay(), ALL, made_bytes=made).files


def test_a_browser_that_knows_none_of_them_is_told_of_what_there_is():
    site = SITE.model_copy(update={"formats": ("avif",)})
    found = read(site, quay(), ALL, conditions=m.Conditions(knows="jpeg"))
    assert any(b.kind == "sharp" for b in found.parts[0].bands)


def test_a_band_says_in_which_other_weather_it_fails():
    """The tower is whole by day and lost in the dark, in the other picture."""
    day = picture(1, 1600, 900, TOWER)
    found = read(SITE, quay(), {1: day, 2: NIGHT})
    (band,) = (b for b in found.parts[0].bands if b.kind == "area")
    assert band.elsewhere == (("dark",),)
    dark = read(SITE, quay(), {1: day, 2: NIGHT}, conditions=DARK)
    assert all(b.elsewhere == () for b in dark.parts[0].bands)
    whole = read(SITE, quay(), {1: day, 2: DAY})
    assert all(b.elsewhere == () for b in whole.parts[0].bands)
