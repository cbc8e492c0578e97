"""What hosts are given that take no markup, and what is said that they cannot do."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError
from selectolax.lexbor import LexborHTMLParser
from skypane import model as m
from skypane.errors import InvalidPlan
from skypane.files.renditions import renditions
from skypane.handover import Asked, AskedPage, blueprint
from skypane.hosts import host_reading, rules_lines, sheet_html, sheet_of
from skypane.hosts.sheet_page import widths_text
from skypane.markup.addresses import addresses_of
from skypane.markup.lines import text_of
from skypane.shown.keeps import fate_codes
from skypane.shown.plan import plan

TOWER = m.Area(name="Tower", rect=m.Rect(x=0.7, y=0.1, w=0.2, h=0.7))
QUAY = m.Original(
    id=1, name="quay.jpg", width_px=5200, height_px=2900, sha256="q", alt="A quay", areas=(TOWER,)
)
NIGHT = m.Original(id=2, name="night.jpg", width_px=5200, height_px=2900, sha256="n", alt="")
LOGO = m.Original(
    id=3, name="logo.png", width_px=600, height_px=200, sha256="l", alt="", alpha=True
)
ALL = {o.id: o for o in (QUAY, NIGHT, LOGO)}
HELD = {
    "D": m.Treatment(original=1, height=m.ViewportHeight(percent=70)),
    "C": m.Treatment(height=m.RatioHeight(w=2, h=1)),
    "B": m.Treatment(height=m.RatioHeight(w=4, h=5)),
    "A": m.Treatment(show="colour"),
}
VIEWS = m.Host(takes="views")


def quay(*more, treatments=HELD, host=VIEWS, **values):
    site = m.Site(hand_over=m.HandOver(host=host))
    parts = (m.Part(key="a", treatments=treatments), *more)
    return plan(site, m.Placement(**{"name": "Quay", "parts": parts, **values}), ALL)


def sheet(found, host=VIEWS, order=None):
    return sheet_of(found, renditions(found), host, order)


def lacks(found, host=VIEWS):
    return {lack.sentence: lack.runs for lack in sheet(found, host).lacks}


# -- a sheet to type from -------------------------------------------------------------------


def test_each_view_is_given_what_most_of_its_widths_have():
    phone, tablet, desktop = sheet(quay()).rows
    assert [(r.view, r.first, r.last) for r in (phone, tablet, desktop)] == [
        ("Phone", 320, 767),
        ("Tablet", 768, 1023),
        ("Desktop", 1024, 2560),
    ]
    assert (phone.shows, phone.file, phone.position) == ("colour", "", None)
    assert (tablet.height, tablet.width, tablet.file) == ("4:5", "100%", "quay--b@2046w.jpg")
    # 2558 = 2046 · 5/4, rounded to whole px
    assert tablet.file_px == (2046, 2558) and tablet.frame_w == (768, 1023)
    assert (desktop.height, desktop.frame_h) == ("70vh", (420, 1008))
    assert desktop.alt == "A quay" and desktop.behind == "#d5d9da"


def test_the_file_is_one_that_is_delivered_in_the_format_that_all_hosts_take():
    found = quay()
    names = {r.name for _, made in renditions(found) for r in made}
    files = [r.file for r in sheet(found).rows if r.file]
    assert set(files) <= names and all(f.endswith(".jpg") for f in files)


def test_its_place_is_in_the_file_not_in_the_original():
    """Worked out by hand: a file of which the tower, 0.7 to 0.9, must stay in a frame that shows
    half of the width: p·½ lies between 0.4 and 0.7, so p between 0.8 and 1 (rules §5); the nearest
    to a focal point in the middle is 0.8."""
    held = {"D": m.Treatment(original=1, whole=True, height=m.RatioHeight(w=2600, h=2900))}
    (row, *_) = sheet(quay(treatments=held)).rows
    assert row.position == (pytest.approx(80, abs=0.1), 50)


def test_one_file_has_one_view_with_all_screens():
    (row,) = sheet(quay(), m.Host(takes="one")).rows
    assert (row.view, row.first, row.last, row.shows) == ("All screens", 320, 2560, "picture")


def test_the_overlay_is_a_colour_and_its_strength_and_a_gradient_as_css_has_it():
    plain = {"scrim": {"kind": "plain", "colour": "#102030"}, "strength": 0.35}
    linear = {"scrim": {"kind": "linear"}, "strength": 0.5}
    found = quay(kind="banner", layout={"D": plain, "B": linear}, words=m.Words(heading="Boats"))
    _, tablet, desktop = sheet(found).rows
    assert (desktop.overlay, desktop.strength) == ("#102030", 35)
    assert tablet.overlay.startswith("linear-gradient(90deg, rgb(0 0 0 / 0.5) 0%")
    assert tablet.strength is None


def test_order_is_that_of_the_span_that_says_what_is_typed():
    rows = sheet(quay(), order={"A": 3, "B": 2, "C": 1, "D": 1}).rows
    assert [r.order for r in rows] == [3, 2, 1]


def test_marks_have_rows_of_their_own_and_items_their_numbers():
    mark = m.Part(role="mark", treatments={"D": m.Treatment(original=3)})
    rows = sheet(quay(mark, kind="banner")).rows
    assert [r.picture for r in rows] == ["Picture"] * 3 + ["Mark"] * 3
    site = m.Site(hand_over=m.HandOver(host=VIEWS))
    parts = tuple(m.Part(treatments={"D": m.Treatment(original=i)}) for i in (1, 2))
    grid = plan(site, m.Placement(name="Nine", kind="grid", parts=parts), ALL)
    rows = sheet(grid).rows
    assert {r.picture for r in rows} == {"Item 1", "Item 2"}
    # how large they are there is the host's own
    assert all(r.frame_w is None and r.width == r.height == "" and r.file for r in rows)
    assert any("left to the host" in lack for lack in lacks(grid))


def test_views_outside_the_site_are_not_told():
    views = (m.View(name="Watch", to_px=240), m.View(name="Wide", to_px=3000), m.View(name="All"))
    assert [r.view for r in sheet(quay(), m.Host(takes="views", views=views)).rows] == ["Wide"]


# -- what it cannot do ----------------------------------------------------------------------


def test_where_spans_of_one_view_differ_that_is_said_with_the_widths():
    found = lacks(quay())
    assert found["Its colour alone shows where you have it otherwise."] == ((600, 767),)
    ((first, _), (_, last)) = found["Its frame is another one."]
    assert (first, last) == (1024, 1599)


def test_a_view_for_each_span_lacks_none_of_it():
    views = (
        *(m.View(name=n, to_px=w) for n, w in (("A", 599), ("B", 1023), ("C", 1599))),
        m.View(name="D"),
    )
    found = lacks(quay(), m.Host(takes="views", views=views))
    assert list(found) == [
        "Every screen of a view fetches the same file: there is no list of sizes and formats."
    ]


@given(
    x=st.floats(0, 0.75),
    w=st.floats(0.05, 0.25),
    ratios=st.lists(
        st.sampled_from([(1, 1), (2, 1), (4, 5), (16, 9), (3, 1)]), min_size=4, max_size=4
    ),
    to_px=st.integers(400, 2000),
)
def test_an_area_is_said_to_be_cut_just_where_the_host_cuts_it(x, w, ratios, to_px):
    """Against the frames and the one place, worked out here anew (CSS Images 3 §5.5, §5.6)."""
    area = m.Area(name="Tower", rect=m.Rect(x=x, y=0.2, w=w, h=0.5))
    original = QUAY.model_copy(update={"areas": (area,)})
    held = {
        letter: m.Treatment(original=1, height=m.RatioHeight(w=a, h=b))
        for letter, (a, b) in zip("ABCD", ratios, strict=True)
    }
    views = (m.View(name="Low", to_px=to_px), m.View(name="High"))
    host = m.Host(takes="views", views=views)
    site = m.Site(hand_over=m.HandOver(host=host))
    made = m.Placement(name="Quay", parts=(m.Part(treatments=held),))
    found = plan(site, made, {1: original})
    told = sheet_of(found, renditions(found), host)
    said = {lack.sentence: lack.runs for lack in told.lacks}.get("Tower is cut or too small.", ())
    files = {r.name: r for _, made_ in renditions(found) for r in made_}
    for p in found.parts[0].shown:
        own = fate_codes(p, area)[0] == 0
        for i in range(0, len(own), 37):
            width = p.span.first + i
            row = next(r for r in told.rows if r.first <= width <= r.last)
            w_, h_ = map(float, row.height.split(":"))
            file = files[row.file]
            frame, drawn = (1.0, h_ / w_), file.width_px / file.height_px
            wide = max(1.0, frame[1] * drawn)
            left = (1.0 - wide) * row.position[0] / 100
            # where the area's sides are in the frame, by the file's cut of the original
            sides = [
                left + wide * (s * original.width_px - file.crop.x) / file.crop.w
                for s in (area.rect.x, area.rect.x1)
            ]
            high = wide / drawn
            top = (frame[1] - high) * row.position[1] / 100
            ends = [
                top + high * (s * original.height_px - file.crop.y) / file.crop.h
                for s in (area.rect.y, area.rect.y1)
            ]
            slack = 2.5 / file.crop.w * wide  # half a px, and what files are rounded to
            out = max(-sides[0], sides[1] - 1, -ends[0], ends[1] - frame[1])
            if abs(out) > slack and own[i]:
                is_said = any(a <= width <= b for a, b in said)
                assert is_said == (out > 0), (width, out, said)


def test_what_shows_under_conditions_is_the_usual_picture():
    dark = m.Part(of="a", when=("dark",), treatments={"C": m.Treatment(original=2)})
    found = lacks(quay(dark))
    assert found["What shows in the dark is the usual picture."] == ((320, 1599),)


def test_a_file_that_is_too_small_at_some_screens_is_said():
    held = {
        "D": m.Treatment(original=1, height=m.RatioHeight(w=2, h=1)),
        "B": m.Treatment(width=m.ShareWidth(percent=50)),
    }
    views = (m.View(name="Low", to_px=1100), m.View(name="High"))
    found = lacks(quay(treatments=held), m.Host(takes="views", views=views))
    # 50 % of 1023 at 2x is 1023 px; at 1024 the frame is as wide as the page
    assert found["Its frame is another one."] == ((1024, 1100),)
    one = lacks(quay(treatments=held), m.Host(takes="one"))
    assert "The file is soft at 2x." not in one  # that of the widest span has px enough


def test_what_takes_markup_lacks_nothing():
    markup = m.Host()
    assert sheet(quay(), markup).rows == () and sheet(quay(), markup).lacks == ()


# -- rules for an element -------------------------------------------------------------------


def rules(found):
    return text_of(rules_lines(found, renditions(found), addresses_of(found)))


RULES = m.Host(takes="rules")


def test_rules_speak_of_the_element_alone():
    dark = m.Part(of="a", when=("dark",), treatments={"D": m.Treatment(original=2)})
    css = rules(quay(dark, host=RULES, target="#top .hero > [data-image]"))
    opened = {
        line.strip().removesuffix(" {")
        for line in css.split("\n")
        if line.endswith("{") and not line.strip().startswith("@")
    }
    own = "#top .hero > [data-image]"
    assert {s.replace(":not(.sky-pane-target)", "") for s in opened} == {own, f"{own}::before"}
    assert "isolation: isolate" in css and "z-index: -1" in css
    assert ".sky-pane-target" not in css.replace(":not(.sky-pane-target)", "")


def test_they_name_files_that_are_delivered():
    found = quay(host=RULES, target=".hero", kind="banner", words=m.Words(heading="Boats leave"))
    names = {r.name for _, made in renditions(found) for r in made}
    named = {part.split('"')[0] for part in rules(found).split('url("images/')[1:]}
    assert named and named <= names


def test_an_overlay_lies_over_the_picture():
    layout = {"D": {"scrim": {"kind": "plain"}, "strength": 0.4}, "B": {"strength": 0.6}}
    css = rules(quay(host=RULES, target=".hero", kind="banner", layout=layout))
    wide, _, narrow = css.partition("@media (max-width: 1023px)")
    assert "background: rgb(0 0 0 / 0.4)" in css and "background: rgb(0 0 0 / 0.6)" in css
    assert css.rindex("rgb(0 0 0 / 0.6)") > css.rindex("rgb(0 0 0 / 0.4)")
    assert wide and narrow


def test_without_an_element_or_with_several_pictures_there_are_none():
    with pytest.raises(InvalidPlan, match="selector") as problem:
        rules(quay(host=RULES))
    assert problem.value.field == "target"
    site = m.Site(hand_over=m.HandOver(host=RULES))
    parts = tuple(m.Part(treatments={"D": m.Treatment(original=i)}) for i in (1, 2))
    grid = plan(site, m.Placement(name="Nine", kind="grid", target=".x", parts=parts), ALL)
    with pytest.raises(InvalidPlan, match="grid has a layout of its own"):
        rules(grid)
    told = host_reading(grid, renditions(grid))
    assert told.css == () and "grid has a layout of its own" in told.why_not
    assert any("left to the host" in lack.sentence for lack in told.lacks)


@pytest.mark.parametrize(
    "said", ["", " ", ".hero  > .image", "#a:is(.b, .c)", "[x='1'] *", "main p"]
)
def test_selectors_are_taken(said):
    assert m.Placement(name="x", target=said).target == " ".join(said.split())


@pytest.mark.parametrize(
    "said", [".a, .b", ".a::before", "> .a", ".a {", "a}b{color:red", "</style>", "5", "a;b", "@x"]
)
def test_what_is_no_selector_of_one_element_is_refused(said):
    with pytest.raises(ValidationError):
        m.Placement(name="x", target=said)


# -- handed over ----------------------------------------------------------------------------


def delivered(host, **values):
    site = m.Site(hand_over=m.HandOver(host=host))
    first = m.Placement(name="Harbour", parts=(m.Part(treatments=HELD),))
    second = m.Placement(name="Quay", parts=(m.Part(treatments=HELD),), **values)
    page = AskedPage(
        title="Home", placements=(first, second), layout={"A": m.PageValues(order=(1, 0))}
    )
    asked = Asked(
        scope="page", title="Home", site=site, pages=(page,), originals=tuple(ALL.values())
    )
    return blueprint(asked).texts


def test_a_delivery_has_a_sheet_for_each_placement_that_can_be_printed():
    texts = delivered(VIEWS)
    page = LexborHTMLParser(texts["host/quay.html"])
    assert page.css_first("h1").text() == "Quay"
    heads = [th.text() for th in page.css("thead th")]
    assert heads == ["Phone, 320 to 767 px", "Tablet, 768 to 1023 px", "Desktop, 1024 to 2560 px"]
    rows = {
        tr.css_first("th").text(): [td.text() for td in tr.css("td")] for tr in page.css("tbody tr")
    }
    assert rows["Order on the page"] == ["1", "2", "2"]
    assert rows["Shows"] == ["only its colour", "on", "on"]
    assert "Tower is cut or too small. at 1" in page.css_first("ul").text()
    assert "sheets to type from" in texts["notes.txt"]


def test_a_delivery_has_rules_or_says_why_there_are_none():
    texts = delivered(RULES, target=".hero")
    assert ".hero::before" in texts["host/quay.css"]
    assert texts["host/harbour.css"].startswith("/* Nobody has said yet")
    assert not any(name.startswith("host/") for name in delivered(m.Host()))


def test_names_cannot_break_out_of_a_sheet():
    found = quay(name="<script>alert(1)</script>")
    assert "<script" not in sheet_html(found.placement.name, sheet(found))


def test_widths_are_said_in_words():
    assert widths_text(((320, 599),)) == "at 320 to 599 px"
    assert (
        widths_text(((320, 320), (400, 500), (900, 901))) == "at 320, 400 to 500 and 900 to 901 px"
    )


@pytest.mark.parametrize(
    "views",
    [
        (),
        (("Phone", 767),),
        (("Phone", 767), ("Tablet", 767), ("All", None)),
        (("Phone", None), ("All", None)),
        ((" ", 767), ("All", None)),
        (("Phone", 5), ("All", None)),
    ],
)
def test_views_that_are_none_are_refused(views):
    with pytest.raises(ValidationError):
        m.Host(takes="views", views=tuple({"name": n, "to_px": w} for n, w in views))


def test_every_width_of_the_site_is_in_one_view():
    found = sheet(quay())
    widths = np.concatenate([np.arange(r.first, r.last + 1) for r in found.rows])
    assert (widths == np.arange(320, 2561)).all()
