"""Banners: what lies where, what is written, and what is refused. Numbers of layouts are common
practice; their agreement with Chromium is in e2e/test_words_in_chromium.py."""

import json
import re

import numpy as np
import pytest
from bannered import HEADING, QUAY, WORDS, banner, original, planned
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError
from skypane import model as m
from skypane.carried import respan
from skypane.errors import InvalidPlan
from skypane.files.names import part_class, part_name
from skypane.files.renditions import renditions
from skypane.findings import findings_of
from skypane.handing_down import Origin
from skypane.handover import fonts_of
from skypane.kinds.banner.layout import laid_out
from skypane.layouts import column_and_row
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.picture import placement_lines
from skypane.model.stored import VERSION, lifted, stored
from skypane.sitefile import FilePage, read_site_file, site_file, text_of_site
from skypane.treatments import handed_of_kind

MARK = original(2, 2000, 500, name="title.png", alpha=True, alt="Tern Point")


def at(plan, width):
    """A span laid out, and the place of a width in it."""
    spot = next(s for s in plan.spots if s.span.first <= width <= s.span.last)
    return laid_out(spot), width - spot.span.first


def written(placement, *originals, site=None):
    found = planned(placement, *originals, site=site)
    markup = text_of(placement_lines(found, renditions(found)))
    return markup, text_of(css_lines(found))


# -- where things lie ----------------------------------------------------------------------


def test_three_quarters_of_the_viewport_high():
    """Common practice: 75 % of 800 is 600."""
    plan = planned(
        banner(treatments={"D": m.Treatment(original=1, height=m.ViewportHeight(percent=75))})
    )
    laid, i = at(plan, 1280)
    heights = plan.spots[2].viewports.heights[:, i]
    assert heights[1] == 800 and laid.area.H[1, i] == 600
    assert laid.own[:, i] == pytest.approx(heights * 0.75)


def test_a_box_of_forty_per_cent_at_1200_is_480_wide():
    """Common practice."""
    laid, i = at(planned(banner({"D": {"percent": 40, "box": {"padding_px": 20}}})), 1200)
    assert laid.block.w[i] == 480
    assert {float(t.w[i]) for t in laid.block.texts if t.kind != "button"} == {440}


@pytest.mark.parametrize("side", ["start", "end"])
def test_a_row_of_68_to_32_at_1440(side):
    """Common practice: 979.2 and 460.8 px."""
    beside = {"shows": "beside", "share_percent": 68, "side": side, "percent": 100, "margin_px": 0}
    laid, i = at(planned(banner({"D": beside})), 1440)
    assert laid.area.W[0, i] == pytest.approx(979.2)
    assert laid.words.W[0, i] == pytest.approx(460.8)
    assert laid.area.x[0, i] == pytest.approx(460.8 if side == "start" else 0)
    assert laid.words.x[0, i] == pytest.approx(0 if side == "start" else 979.2)


def test_words_stand_in_their_place():
    """Nine places: at the margins, or in the middle between them."""
    for place in m.PLACES:
        laid, i = at(planned(banner({"D": {"place": place, "percent": 30, "margin_px": 30}})), 1280)
        across, down = column_and_row(place)
        w, h = laid.block.w[i], laid.block.h[i]
        x = {0: 30, 0.5: (1280 - w) / 2, 1: 1280 - 30 - w}[across]
        y = {0: 30, 0.5: (640 - h) / 2, 1: 640 - 30 - h}[down]
        assert (laid.words.x[0, i], laid.words.y[0, i]) == pytest.approx((x, y))


def test_words_below_and_above_have_a_row_of_their_own():
    for shows in ("below", "above"):
        laid, i = at(planned(banner({"D": {"shows": shows, "margin_px": 10}})), 1280)
        row = laid.block.h[i] + 20
        assert laid.area.H[0, i] == 640 and laid.box_h[0, i] == pytest.approx(640 + row)
        assert laid.words.y[0, i] == pytest.approx(650 if shows == "below" else 10)
        assert laid.area.y[0, i] == pytest.approx(0 if shows == "below" else row)


def test_the_banner_grows_rather_than_lose_words():
    flat = {"D": m.Treatment(original=1, height=m.RatioHeight(w=10, h=1))}
    plan = planned(banner({"D": {"margin_px": 12}}, flat))
    laid, i = at(plan, 400)
    assert laid.own[0, i] == 40 and laid.area.H[0, i] == pytest.approx(laid.block.h[i] + 24)
    found = [f for f in findings_of(plan) if f.rule == "words-outgrow"]
    assert len(found) == 1 and found[0].spans == ("A", "B", "C", "D")
    assert "from 320 to 1711 px" in found[0].sentence
    # what shows, what is cut and the needed px follow the frame as it is
    assert plan.parts[0].spans[0].H[0, i] == laid.area.H[0, i]


@settings(max_examples=25)
@given(
    st.sampled_from(m.PLACES),
    st.floats(30, 100),
    st.floats(0, 40),
    st.floats(10, 60),
    st.sampled_from(["on", "below", "above", "beside"]),
)
def test_words_never_leave_the_banner(place, percent, margin, size, shows):
    layout = {"place": place, "percent": percent, "margin_px": margin, "heading_px": size}
    plan = planned(banner({"D": {**layout, "shows": shows}}))
    for spot in plan.spots:
        laid = laid_out(spot)
        w = laid.words
        assert (w.x >= margin - 1e-6).all() and (w.y >= margin - 1e-6).all()
        assert (w.x + w.W <= laid.box_w - margin + 1e-6).all()
        assert (w.y + w.H <= laid.box_h - margin + 1e-6).all()
        for t in laid.block.texts:
            assert (t.x >= 0).all() and (t.x + t.w <= laid.block.w + 1e-6).all()
            assert (t.y + t.h <= laid.block.h + 1e-6).all()


def test_values_are_handed_down_one_by_one():
    placement = banner({"D": {"percent": 40, "heading_px": 50}, "B": {"heading_px": 30}})
    values = {s.span.letter: s.values for s in planned(placement).spots}
    assert [(v.percent, v.heading_px) for v in values.values()] == [
        (40, 30), (40, 30), (40, 50), (40, 50)
    ]  # fmt: skip
    held = handed_of_kind(m.Site(), placement)
    assert held["A"].origin == {"percent": Origin("D", "kind"), "heading_px": Origin("B", "kind")}


def test_values_follow_the_breakpoints():
    placement = banner({"D": {"percent": 40}, "B": {"percent": 60}, "A": {"percent": 100}})
    before, after = m.Site(), m.Site(breakpoints=(599, 1599))
    moved = respan(before, after, placement)
    assert [s.values.percent for s in planned(moved, site=after).spots] == [100, 40, 40]


# -- mark and inset ------------------------------------------------------------------------


def marked(layout=None, **treatments):
    held = {"D": m.Treatment(original=2), **treatments}
    return banner(layout, parts=(m.Part(role="mark", treatments=held),))


def test_a_mark_has_its_share_of_the_banner_and_its_own_files():
    plan = planned(marked({"D": {"mark_percent": 25, "mark_most_px": 300}}), QUAY, MARK)
    mark = plan.parts[1]
    widths = {s.span.letter: float(s.W.max()) for s in mark.spans}
    assert widths == {"A": 149.75, "B": 255.75, "C": 300, "D": 300}
    assert float(mark.spans[0].H[0, 0]) == pytest.approx(80 / 4)
    offered = {
        r.name: (r.density, r.width_px)
        for g, mine in renditions(plan) if g.part == 1 for r in mine if r.format == "avif"
    }  # fmt: skip
    assert offered == {
        "quay-mark--a.avif": (1, 150),
        "quay-mark--a@2x.avif": (2, 300),
        "quay-mark--b.avif": (1, 256),
        "quay-mark--b@2x.avif": (2, 512),
        "quay-mark.avif": (1, 300),
        "quay-mark@2x.avif": (2, 600),
    }


def test_a_mark_can_be_another_cut_in_every_span():
    stacked = original(3, 500, 400, name="stacked.png", alpha=True)
    plan = planned(marked(A=m.Treatment(original=3)), QUAY, MARK, stacked)
    ratios = [float(s.W[0, 0] / s.H[0, 0]) for s in plan.parts[1].spans]
    assert ratios == pytest.approx([1.25, 4, 4, 4])


def test_what_is_wrong_with_a_mark_is_found():
    opaque = original(2, 1000, 250, name="title.jpg")
    tiny = original(2, 3, 3, name="dot.png", alpha=True)
    over = {"D": {"mark_place": "end", "mark_percent": 60}}

    def rules(mark, layout=None):
        return {f.rule for f in findings_of(planned(marked(layout), QUAY, mark)) if f.part == 1}

    assert rules(MARK) == {"mark-in-the-way"}  # it lies on the words, both start at the top left
    assert "mark-opaque" in rules(opaque)
    assert "soft" in rules(tiny)
    covers = [
        f.sentence
        for f in findings_of(planned(marked(over), QUAY, MARK))
        if f.rule == "mark-in-the-way"
    ]
    assert any("covers Mast" in s for s in covers)


def test_an_inset_stands_in_where_the_picture_is_dropped():
    held = {
        "D": m.Treatment(show="nothing"),
        "A": m.Treatment(show="picture", original=1, crop=m.Rect(x=0.5, y=0.1, w=0.4, h=0.7)),
    }
    small = banner(
        {"A": {"inset_px": 120, "inset_border_px": 4, "inset_place": "bottom-end"}},
        {"A": m.Treatment(show="colour")},
        parts=(m.Part(role="inset", treatments=held),),
    )
    plan = planned(small)
    inset = plan.parts[1].spans[0]
    assert (float(inset.W[0, 0]), float(inset.H[0, 0])) == (112, 112)  # inside its border
    markup, css = written(small)
    assert "border-radius: 50%" in css and "border: 4px solid #ffffff" in css
    assert markup.count("quay-inset") >= 2 and not any(
        "quay--a" in line for line in markup.splitlines()
    )  # the picture itself has no file there


@pytest.mark.parametrize(
    ("parts", "said"),
    [
        ((m.Part(role="mark"), m.Part(role="mark")), "at most one mark and one inset"),
        ((m.Part(),), "at most one mark and one inset"),
        ((m.Part(role="mark"), m.Part(role="inset"), m.Part(role="mark")), "1 to 3 parts"),
    ],
)
def test_a_banner_has_a_picture_a_mark_and_an_inset(parts, said):
    with pytest.raises(InvalidPlan, match=said):
        planned(banner(parts=parts))


def test_a_part_is_called_after_its_role():
    placement = marked()
    assert [part_name(placement, i) for i in (0, 1)] == ["quay", "quay-mark"]
    assert [part_class(placement, i, True) for i in (0, 1)] == ["quay-picture", "quay-mark"]


# -- markup --------------------------------------------------------------------------------


def test_the_heading_is_read_first_wherever_it_stands():
    for shows in ("on", "below", "above", "beside"):
        markup, _ = written(banner({"D": {"shows": shows}}))
        assert markup.index(HEADING) < markup.index("<picture")
        assert markup.count(HEADING) == 1


HOSTILE = "</style></h2><script>alert(1)</script>{}*/ &amp; \\ \"';--"


def test_nothing_that_words_hold_is_read_as_html_or_css():
    words = m.Words(
        heading=HOSTILE, text=HOSTILE, buttons=(m.Button(label=HOSTILE, href="/a?b=c&d"),)
    )
    markup, css = written(banner(words=words))
    assert "<script" not in markup and "alert" not in css
    from selectolax.lexbor import LexborHTMLParser

    read = LexborHTMLParser(markup)
    said = [read.css_first(tag).text() for tag in ("h2", "p", "a")]
    assert said == [HOSTILE] * 3
    assert read.css_first("a").attributes["href"] == "/a?b=c&d"


def test_lines_of_a_text_stay_lines():
    markup, css = written(banner(words=m.Words(heading="One\r\n two", text="a\n\nb")))
    assert "One&#10;two" in markup and "a&#10;&#10;b" in markup and "pre-line" in css


@pytest.mark.parametrize(
    "href", ["javascript:alert(1)", " JavaScript:x", "java\tscript:x", "data:text/html,x"]
)
def test_a_button_leads_to_pages_only(href):
    with pytest.raises(ValidationError, match="cannot lead to"):
        m.Button(label="Go", href=href)


@pytest.mark.parametrize(
    "href", ["/a", "a.html", "#b", "https://example.org/a:b", "mailto:a@b.c", "tel:+1"]
)
def test_links_that_a_page_has(href):
    assert m.Button(label="Go", href=href).href == href


def test_words_that_are_too_long_are_refused_with_their_number():
    with pytest.raises(ValidationError, match=r"10000 characters.*At most 300"):
        m.Words(heading="x" * 10_000)
    with pytest.raises(ValidationError, match=r"10000 characters.*At most 2000"):
        m.Words(text="x" * 10_000)


@pytest.mark.parametrize(
    "text", ["שלום עולם", "مرحبا", "🌊🌊 sea", "x" * 200, "海の最後の光", "a\u0301" * 50]
)
def test_words_of_every_script_can_be_laid_out(text):
    plan = planned(banner(words=m.Words(heading=text, text=text)))
    for spot in plan.spots:
        laid = laid_out(spot)
        assert np.isfinite(laid.block.h).all() and (laid.block.h > 0).all()
    assert 'dir="auto"' in written(banner(words=m.Words(heading=text)))[0]


def test_a_banner_that_shows_nothing_shows_nothing_of_it():
    """Nothing is drawn, nothing read out, nothing fetched: mark and words go with the picture."""
    placement = marked(D=m.Treatment(original=2)).model_copy()
    gone = placement.with_part(
        0,
        m.Part(
            treatments={
                "D": m.Treatment(original=1, height=m.RatioHeight(w=2, h=1)),
                "A": m.Treatment(show="nothing"),
            }
        ),
    )
    plan = planned(gone, QUAY, MARK)
    assert [p.effective.show for p in (plan.parts[0].spans[0], plan.parts[1].spans[0])] == [
        "nothing"
    ] * 2
    markup, css = written(gone, QUAY, MARK)
    narrow = [line for line in markup.splitlines() if "max-width: 599px" in line]
    assert len(narrow) == 2 and all("data:image/svg+xml" in line for line in narrow)
    block = css[css.index("@media (max-width: 599px)") :]
    assert re.search(r"\.quay \{\s+display: none;", block)


def test_typefaces_go_with_what_asks_for_them():
    _, css = written(banner())
    assert 'font-family: "Instrument Sans", "Instrument Sans as Arial"' in css
    asked = 'src: url("fonts/newsreader-latin.woff2")'
    assert list(
        fonts_of({"a.css": asked, "b.html": 'url("fonts/instrument-sans-latin.woff2")'})
    ) == ["fonts/newsreader-latin.woff2"]


def test_a_banner_without_words_has_no_rules_for_them():
    _, css = written(banner(words=None))
    assert "words" not in css and "font" not in css


# -- refusals ------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("layout", "said", "field"),
    [
        (
            {"B": {"margin_px": 320.5}, "A": {"margin_px": 9}},
            "takes 641 of the 600",
            "layout.B.margin_px",
        ),
        ({"D": {"margin_px": 90}}, r"takes 180 of the 320 px.*140 px are", "layout.D.margin_px"),
        ({"D": {"colour": "white"}}, "six digits", "layout.D.colour"),
        ({"D": {"percent": 0}}, "at least 5", "layout.D.percent"),
        ({"D": {"place": "left"}}, "one of", "layout.D.place"),
        (
            {"C": {"scrim": {"kind": "linear", "stops": [{"at": 60}, {"at": 30}]}}},
            "30 % follows 60 %",
            "layout.C.scrim.stops",
        ),
        ({"D": {"shadow": 3}}, "not known here", "layout.D.shadow"),
    ],
)  # fmt: skip
def test_what_cannot_be_had_is_refused_at_its_field(layout, said, field):
    with pytest.raises(InvalidPlan, match=said) as refused:
        planned(banner(layout))
    assert refused.value.field == field


def test_a_margin_is_not_asked_about_where_nothing_shows():
    hidden = {"D": m.Treatment(original=1), "A": m.Treatment(show="nothing")}
    placement = banner({"D": {"margin_px": 90}}, hidden)
    assert [s.cells[0].effective.show for s in planned(placement).spots] == [
        "nothing", "picture", "picture", "picture"
    ]  # fmt: skip


def test_an_inset_larger_than_its_frame_is_refused():
    placement = banner(
        {"A": {"inset_px": 400}},
        parts=(m.Part(role="inset", treatments={"D": m.Treatment(original=1)}),),
    )
    with pytest.raises(
        InvalidPlan, match=r"400 px is larger.*272 px between its margins"
    ) as refused:
        planned(placement)
    assert refused.value.field == "layout.A.inset_px"


# -- as it is kept -------------------------------------------------------------------------


def test_a_banner_is_kept_and_taken_along_whole():
    placement = marked({"D": {"scrim": {"kind": "plain"}}, "A": {"percent": 90}}).model_copy(
        update={"one_of": "head"}
    )
    kept = m.Placement.model_validate(
        lifted("placement", stored(placement.model_dump(mode="json", exclude_none=True)))
    )
    assert kept == placement
    file = site_file(
        "Tern Point", m.Site(), [FilePage(title="Home", placements=(placement,))], [QUAY, MARK]
    )
    again = read_site_file(text_of_site(file)).pages[0].placements[0]
    assert (again.words, again.layout, again.one_of) == (WORDS, placement.layout, "head")
    assert [p.role for p in again.parts] == [None, "mark"]
    assert json.loads(text_of_site(file))["version"] == VERSION


# -- one of a set --------------------------------------------------------------------------


def head(name, shows):
    treatments = {letter: m.Treatment(show=show) for letter, show in shows.items()}
    treatments["D"] = treatments.get("D", m.Treatment()).model_copy(update={"original": 1})
    return banner(treatments=treatments, name=name, one_of="head")


@pytest.mark.parametrize(
    ("other", "found"),
    [
        ({"D": "nothing", "B": "picture"}, []),
        ({"D": "nothing", "A": "picture"}, [(("B",), "none shows")]),
        ({"D": "nothing", "C": "picture"}, [(("C",), "wide and narrow show")]),
    ],
)
def test_of_a_set_exactly_one_shows(other, found):
    wide, narrow = head("wide", {"B": "nothing"}), head("narrow", other)
    told = [
        (f.spans, f.sentence)
        for f in findings_of(planned(wide), siblings=lambda: [narrow])
        if f.rule == "one-of-a-set"
    ]
    assert [spans for spans, _ in told] == [spans for spans, _ in found]
    assert all(said in sentence for (_, said), (_, sentence) in zip(found, told, strict=True))
    alone = wide.model_copy(update={"one_of": None})
    assert not [f for f in findings_of(planned(alone)) if f.rule == "one-of-a-set"]


def test_what_a_browser_gives_lists_by_itself_is_taken_away():
    """`ul` has a padding of its own (HTML Standard §15.3.7): none is said even where no span has
    another."""
    css = text_of(css_lines(planned(banner(words=WORDS))))
    (rule,) = re.findall(r"-words ul \{([^}]*)\}", css)[:1]
    assert "padding: 0;" in rule
