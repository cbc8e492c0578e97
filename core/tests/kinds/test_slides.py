"""A slideshow: what it refuses, what it tells, its script and what is wrong with slides."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError
from selectolax.lexbor import LexborHTMLParser
from skypane import blueprint, crops_of_all, findings_of, finish
from skypane import model as m
from skypane.errors import InvalidPlan, sentence_of
from skypane.files.renditions import renditions
from skypane.galleries.ratio import unlike_most
from skypane.handover import Asked, AskedPage
from skypane.kinds.slides.elements import SCRIPT
from skypane.kinds.slides.row import controls_on, loop_s, stops_of
from skypane.layouts import begun
from skypane.markup.lines import text_of
from skypane.markup.picture import placement_lines
from skypane.markup.scripts import SCRIPTS, script_text
from skypane.reading import read
from skypane.shown.plan import plan

SITE = m.Site()
BOAT = m.Area(name="Boat", rect=m.Rect(x=0.4, y=0.7, w=0.3, h=0.28))
SIZES = [(3200, 1800), (3200, 1800), (6000, 3375), (3200, 1800), (2400, 1800), (2400, 1600)]
ORIGINALS = {
    i: m.Original(
        id=i,
        name=f"{i} Küste 岬.jpg",
        width_px=w,
        height_px=h,
        sha256=str(i),
        alt=f"View {i}",
        areas=(BOAT,) if i == 5 else (),
    )
    for i, (w, h) in enumerate(SIZES, 1)
}
WIDE = {"D": m.Treatment(height=m.RatioHeight(w=16, h=9))}


def slides(layout=None, ids=tuple(ORIGINALS), common=None, **values):
    parts = tuple(m.Part(treatments={"D": m.Treatment(original=i)}) for i in ids)
    made = begun("slides", SITE, m.Placement(name="Six views", parts=parts))
    return made.model_copy(
        update={"layout": layout or {"D": {}}, "common": common or WIDE, **values}
    )


def planned(placement):
    return plan(SITE, placement, ORIGINALS)


def spot(placement, letter="D"):
    return next(s for s in planned(placement).spots if s.span.letter == letter)


def rules_of(placement):
    return {f.rule for f in findings_of(planned(placement))}


@pytest.mark.parametrize("pause", [0, -1, 0.2])
def test_a_pause_that_flickers_is_refused_with_the_reason(pause):
    """Three flashes in a second can harm (WCAG 2.2, 2.3.1)."""
    with pytest.raises(InvalidPlan, match=r"flickers.*2\.3\.1.*at least 1 s") as refused:
        planned(slides({"D": {"every_s": pause}}))
    assert refused.value.field == "layout.D.every_s"


def test_several_at_a_time_do_not_fade_one_through_the_other():
    for change, word in (("fade", "cross-fade"), ("zoom", "zoom")):
        with pytest.raises(InvalidPlan, match=f"to {word}, show one at a time"):
            planned(slides({"D": {"at_a_time": 3, "change": change}}))
    assert planned(slides({"D": {"at_a_time": 3, "change": "none"}})).parts


def test_gutters_that_leave_no_slide_are_refused_with_the_sum():
    with pytest.raises(InvalidPlan, match=r"gutters take 4000 px of 320"):
        planned(slides({"D": {"at_a_time": 11, "gutter_px": 400}}))


def test_the_height_of_slides_is_said_for_all():
    one = m.Part(treatments={"D": m.Treatment(original=1, height=m.RatioHeight(w=1, h=1))})
    with pytest.raises(InvalidPlan, match="The height of a slideshow is said for all slides"):
        planned(slides().model_copy(update={"parts": (one,)}))


@pytest.mark.slow
@given(
    n=st.integers(1, 40),
    k=st.integers(1, 12),
    every=st.floats(1, 600),
    share=st.floats(0, 0.9),
)
def test_a_loop_stands_still_once_for_every_stop(n, k, every, share):
    """Every slide shows in a loop, `k` at a time; from one change to the next it is the time that
    was asked for, however long a change takes."""
    change = min(5, every * share)
    layout = {"D": {"at_a_time": k, "every_s": every, "change_s": change, "by_itself": True}}
    found = spot(slides(layout, ids=[1] * n))
    assert stops_of(found) == -(-n // k)
    assert loop_s(found) == pytest.approx(stops_of(found) * every)
    assert found.values.pause_s == pytest.approx(every - change)


def test_the_length_of_a_loop_is_told_with_its_sum():
    made = slides(
        {"D": {"by_itself": True, "every_s": 2.5, "change_s": 0.4}, "A": {"change": "none"}}
    )
    told = {s.letter: s.notes for s in read(SITE, made, ORIGINALS).layout}
    # six slides, every 2.5 s: 15 s (common practice), however they change
    assert told["D"] == told["A"] == ("A loop takes 15 s: 6 × 2.5 s.",)


def test_a_change_as_long_as_the_time_between_is_refused():
    held = {"by_itself": True, "every_s": 1, "change_s": 1}
    with pytest.raises(InvalidPlan, match="leaves no time to look"):
        planned(slides({"D": held}))
    # what changes at once, or only by hand, has no such bound
    assert planned(slides({"D": {**held, "change": "none"}})).parts
    assert planned(slides({"D": {**held, "by_itself": False}})).parts


def test_slides_of_unlike_ratio_are_found_and_named():
    natural = {"D": m.Treatment(height=m.NaturalHeight())}
    made = slides(common=natural)
    found = [f for f in findings_of(planned(made)) if f.rule == "slides-unlike"]
    assert {f.spans for f in found} == {("A",), ("B",), ("C",), ("D",)}
    assert "2 of 6 are out of line, 5, 6." in found[0].sentence
    assert "slides-unlike" not in rules_of(slides())
    alike = slides(ids=(1, 2, 3), common=natural)
    assert "slides-unlike" not in rules_of(alike)


@given(st.lists(st.floats(0.05, 20), min_size=1, max_size=12))
def test_who_is_out_of_line_against_counting(ratios):
    most, unlike = unlike_most(ratios)
    alike = [i for i, r in enumerate(ratios) if abs(r / most - 1) < 0.01]
    assert sorted([*alike, *unlike]) == list(range(len(ratios)))
    assert len(alike) == max(sum(abs(r / a - 1) < 0.01 for r in ratios) for a in ratios)


def test_crops_of_one_ratio_hold_the_keep_areas():
    made = slides({"D": {}})
    ratio = read(SITE, made, ORIGINALS, chosen=(0, "D")).items.ratio
    assert (ratio.most, ratio.unlike) == (pytest.approx(16 / 9, abs=1e-3), (4, 5))
    for i, crop in ratio.crops.items():
        o = ORIGINALS[i + 1]
        assert crop.w * o.width_px / (crop.h * o.height_px) == pytest.approx(ratio.ratio, rel=1e-3)
        for area in o.areas:
            assert crop.x <= area.rect.x + 1e-9
            assert crop.y1 >= area.rect.y1 - 1e-9


def test_the_greatest_width_follows_from_the_smallest_original():
    """A slide of 2400 × 1600 cut to 16:9 has 2400 px across: at 2x it is sharp up to 1200 px."""
    found = read(SITE, slides(), ORIGINALS, chosen=(0, "D")).items.sharpest
    assert (found.width_px, found.density, found.part, found.own_px) == (1200, 2, 4, 2400)
    three = slides({"D": {"at_a_time": 3, "gutter_px": 20}})
    assert read(SITE, three, ORIGINALS, chosen=(0, "D")).items.sharpest.width_px == 3640
    limited = {
        "D": m.Treatment(width=m.FullWidth(greatest_px=1200), height=m.RatioHeight(w=16, h=9))
    }
    bands = read(SITE, slides(common=limited), ORIGINALS).parts[4].bands
    assert {r.verdict for b in bands if b.kind == "sharp" and b.density == 2 for r in b.runs} == {
        "sharp"
    }


def test_controls_on_a_keep_area_are_found_where_they_lie_on_it():
    made = slides({"D": {"controls": "numbers", "controls_place": "bottom"}})
    found = [f for f in findings_of(planned(made)) if f.rule == "controls-on-area"]
    assert {f.part for f in found} == {4}
    assert "cover Boat" in found[0].sentence
    for away in ({"controls_lie": "under"}, {"controls_place": "top"}, {"controls": "none"}):
        layout = {"D": {"controls": "numbers", **away}}
        assert "controls-on-area" not in rules_of(slides(layout))


@pytest.mark.slow
@given(
    place=st.sampled_from(m.PLACES),
    width=st.sampled_from(["dots", "numbers", "arrows"]),
    n=st.integers(2, 30),
)
def test_controls_lie_within_the_picture(place, width, n):
    layout = {"D": {"controls": width, "controls_place": place, "by_itself": True}}
    found = spot(slides(layout, ids=[1] * n), "A")
    high = np.full((1, len(found.viewports.widths)), 700.0)
    box = controls_on(found, high)
    assert (box.x >= 0).all()
    assert (box.y >= 0).all()
    assert (box.x + box.W <= found.viewports.widths + 1e-9).all()
    assert (box.y + box.H <= 700 + 1e-9).all()


def test_one_slide_never_moves_and_that_is_said():
    made = slides(ids=(1,))
    assert "slides-rest" in rules_of(made)
    assert LexborHTMLParser(html_of(made)).css("button") == []
    all_ = slides({"D": {"at_a_time": 6}})
    (told,) = [s.notes for s in read(SITE, all_, ORIGINALS).layout if s.letter == "D"]
    assert told == ("It never moves: all slides show at once.",)


def html_of(placement):
    computed = planned(placement)
    return text_of(placement_lines(computed, renditions(computed)))


def test_the_markup_is_that_of_the_carousel_pattern():
    """WAI-ARIA Authoring Practices, carousel with grouped buttons: a region with its role
    description, the button that stops it first, slides told as such."""
    tree = LexborHTMLParser(html_of(slides()))
    (box,) = tree.css("section.six-views")
    assert box.attributes["aria-roledescription"] == "carousel"
    assert box.attributes["aria-label"] == "Six views"
    buttons = tree.css("button")
    assert "data-moves" in buttons[0].attributes
    assert all(b.attributes["aria-label"] for b in buttons)
    assert {b.attributes["aria-controls"] for b in buttons} == {"six-views-slides"}
    groups = tree.css("[data-slides] > [role=group]")
    assert [g.attributes["aria-label"] for g in groups] == [f"{i} of 6" for i in range(1, 7)]
    assert {g.attributes["aria-roledescription"] for g in groups} == {"slide"}


def test_controls_over_a_keep_area_are_found_anew_when_slides_come_or_go():
    """A dot more makes them wider, though nothing has changed for the slide itself."""
    before = slides({"D": {"controls": "dots"}}, ids=(1, 5))

    def told(placement):
        found = findings_of(planned(placement))
        return [f.sentence for f in found if f.rule == "controls-on-area" and f.part == 1]

    few = told(before)
    many = before.model_copy(update={"parts": (*before.parts, *before.parts[:1] * 8)})
    assert few and told(many) and told(many) != few
    hidden = m.Part(treatments={"D": m.Treatment(original=1, show="nothing")})
    other = before.model_copy(update={"parts": (*before.parts, *(hidden,) * 8)})
    assert told(other) == few


#: From memory: what such controls are called in German.
GERMAN = m.Spoken(
    carousel="Bildfolge",
    slide="Bild",
    slides="Bilder von {name}",
    place="{n} von {all}",
    controls="Bedienung der Bilder",
    stop="Bilder anhalten",
    start="Bilder laufen lassen",
    previous="Vorheriges Bild",
    next="Nächstes Bild",
    go_to="Bild {n} von {all}",
)


def test_controls_speak_the_language_of_the_pages():
    """Names are in the language of the page (WCAG 2.2, 3.1.1 and 4.1.2); no English is left."""
    site = m.Site(language="de-AT", spoken=GERMAN)
    placement = slides().model_copy(update={"name": 'Sechs {n} "Blicke"'})
    asked = Asked(
        site=site,
        pages=(AskedPage(placements=(placement,)),),
        originals=tuple(ORIGINALS.values()),
    )
    page = LexborHTMLParser(blueprint(asked).texts["page.html"])
    assert page.css_first("html").attributes["lang"] == "de-AT"
    said = [n.attributes["aria-label"] for n in page.css("[aria-label]")]
    assert said[:3] == ['Sechs {n} "Blicke"', "Bedienung der Bilder", "Bilder anhalten"]
    assert "Bild 2 von 6" in said and "6 von 6" in said and 'Bilder von Sechs {n} "Blicke"' in said
    moves = page.css_first("[data-moves]").attributes
    assert (moves["data-stop"], moves["data-start"]) == ("Bilder anhalten", "Bilder laufen lassen")
    told = {n.attributes["aria-roledescription"] for n in page.css("[aria-roledescription]")}
    assert told == {"Bildfolge", "Bild"}


@pytest.mark.parametrize(
    ("values", "sentence"),
    [
        ({"spoken": {"next": "  "}}, "a control without a name"),
        ({"spoken": {"go_to": "Bild"}}, "It must hold {n}"),
        ({"spoken": {"slides": "Bilder"}}, "It must hold {name}"),
        ({"language": "Deutsch, bitte"}, "It must be a language tag"),
        ({"language": ""}, "It must be a language tag"),
    ],
)
def test_phrases_that_would_leave_controls_alike_or_silent_are_refused(values, sentence):
    with pytest.raises(ValidationError) as refused:
        m.Site.model_validate(values)
    assert sentence in sentence_of(refused.value)


@pytest.mark.parametrize("tag", ["en", "pt-BR", "zh-Hant-TW", "sr-Latn-RS", "de-CH-1901"])
def test_language_tags_as_the_standard_has_them(tag):
    """Examples of RFC 5646, appendix A."""
    assert m.Site(language=tag).language == tag


def test_names_of_slides_are_text():
    part = m.Part(
        item=m.Item(title='"><script>x()</script>'), treatments={"D": m.Treatment(original=1)}
    )
    made = slides().model_copy(update={"parts": (part, part)})
    assert "<script>" not in html_of(made)


def test_the_script_is_small_and_asks_for_nothing():
    """Under 6 kB, no dependency, nothing fetched."""
    for name, known in SCRIPTS.items():
        script = script_text(name)
        assert len(script.encode()) < known.most_bytes
        for word in ("import", "require", "fetch(", "XMLHttpRequest", "http:", "https:", "eval"):
            assert word not in script


def test_a_delivery_has_the_script_only_where_slides_are_in_it():
    """Once in a page, in every scope."""
    picture = m.picture("Plain", {"D": m.Treatment(original=1)})
    for placement, wanted in ((slides(), True), (picture, False)):
        asked = Asked(
            site=SITE,
            pages=(AskedPage(placements=(placement,)),),
            originals=tuple(ORIGINALS.values()),
        )
        texts = blueprint(asked).texts
        assert (SCRIPT.name in texts) is wanted
        assert (f'<script src="{SCRIPT.name}" defer></script>' in texts["page.html"]) is wanted
    asked = Asked(
        scope="site",
        site=SITE,
        pages=(
            AskedPage(title="Home", placements=(slides(),)),
            AskedPage(title="Visit", placements=(picture,)),
        ),
        originals=tuple(ORIGINALS.values()),
    )
    texts = finish(blueprint(asked), {}).texts
    assert texts["home.html"].count(SCRIPT.name) == 1
    assert SCRIPT.name not in texts["visit.html"]


def test_only_the_slides_that_show_first_load_at_once():
    for k, eager in ((1, [True, False, False, False, False, False]), (3, [True] * 3 + [False] * 3)):
        made = slides({"D": {"at_a_time": k}}, lead=True)
        pictures = LexborHTMLParser(html_of(made)).css("img")
        assert [p.attributes["loading"] == "eager" for p in pictures] == eager
    assert 'loading="eager"' not in html_of(slides(lead=False))


def test_all_are_cropped_to_a_ratio_of_ones_choice():
    """Each with its own areas, where they fit: none is larger than the picture, none leaves an area
    out, and there is no larger one (either side is all of the picture's)."""
    made = plan(SITE, slides({"D": {}}), ORIGINALS)
    for ratio in (1.0, 3 / 2, 16 / 9):
        found = crops_of_all(made, "D", ratio)
        assert {*found.crops} | {*found.why_not} == set(range(len(made.parts)))
        for i, crop in found.crops.items():
            o = ORIGINALS[i + 1]
            assert crop.w * o.width_px / (crop.h * o.height_px) == pytest.approx(ratio, rel=1e-6)
            assert max(crop.w, crop.h) == pytest.approx(1)
    wide = m.Area(name="All of the row", rect=m.Rect(x=0, y=0.4, w=1, h=0.2))
    rows = {i: o.model_copy(update={"areas": (wide,)}) for i, o in ORIGINALS.items() if i < 3}
    refused = crops_of_all(plan(SITE, slides(), {**ORIGINALS, **rows}), "D", 1.0).why_not
    assert set(refused) == {0, 1}
    assert refused[0].startswith(f"{ORIGINALS[1].name}: a crop of 1:1 has 56 % of the width")
    with pytest.raises(InvalidPlan, match="no span E"):
        crops_of_all(made, "E", 1.0)
