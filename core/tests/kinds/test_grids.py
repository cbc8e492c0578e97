"""Many pictures in one spot: cells, captions and links of a placement, and how all of them fare."""

import gc

import numpy as np
import pytest
from pydantic import ValidationError
from selectolax.lexbor import LexborHTMLParser
from skypane import model as m
from skypane.changes import Version, differences
from skypane.errors import InvalidPlan
from skypane.files.renditions import renditions
from skypane.layouts import begun, value_names
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.picture import placement_lines
from skypane.reading import read, read_moving
from skypane.shown.nouns import PartPlan
from skypane.shown.plan import plan
from skypane.shown.store import Store

SITE = m.Site()
STACK = m.Area(name="Stack", rect=m.Rect(x=0.1, y=0.1, w=0.8, h=0.8))
ORIGINALS = {
    1: m.Original(id=1, name="buoy.jpg", width_px=6000, height_px=4000, sha256="1", alt="A buoy"),
    2: m.Original(id=2, name="2-tern.jpg", width_px=4032, height_px=3024, sha256="2", alt="A tern"),
    3: m.Original(
        id=3,
        name="岬.jpg",
        width_px=3000,
        height_px=4000,
        sha256="3",
        alt="A sea stack",
        areas=(STACK,),
    ),
    4: m.Original(id=4, name="strip.png", width_px=500, height_px=10000, sha256="4", alt="A rope"),
}


def grid(*ids, layout=None, items=(), **values):
    parts = tuple(
        m.Part(treatments={"D": m.Treatment(original=i)} if i else {}, item=dict(items).get(n))
        for n, i in enumerate(ids)
    )
    made = begun("grid", SITE, m.Placement(name="Nine things", parts=parts))
    return made.model_copy(update={"layout": layout or made.layout, **values})


def planned(placement):
    return plan(SITE, placement, ORIGINALS)


def html_of(placement):
    computed = planned(placement)
    return LexborHTMLParser(text_of(placement_lines(computed, renditions(computed))))


def css_of(placement):
    return text_of(css_lines(planned(placement)))


# -- cells ---------------------------------------------------------------------------------


def test_cells_gutters_padding_and_margin_make_up_the_grid():
    layout = {"D": {"columns": 3, "gutter_px": 30, "padding_px": 10, "margin_px": 40}}
    for part in planned(grid(1, 2, 3, 1, layout=layout)).parts[:3]:
        for p in part.spans:
            cell = p.W[0] + 20
            assert 3 * cell + 2 * 30 + 2 * 40 == pytest.approx(p.viewport_w)
    # what is needed follows from the picture's own frame, not from its cell
    assert max(g.needed for g, _ in renditions(planned(grid(1, layout=layout)))) == 787


def test_the_frame_is_widest_where_the_page_is_narrow():
    """One column to 599 px, two to 1023, three above, in a container of 1080: on A 559 px, on D
    344 (common practice)."""
    placement = grid(1, 2, 3)
    held = {
        **placement.common["D"].model_dump(exclude_none=True),
        "width": {"kind": "share", "percent": 100, "of": "container"},
    }
    placement = placement.model_copy(update={"common": {"D": m.Treatment.model_validate(held)}})
    (band,) = (
        b
        for b in read(SITE, placement, ORIGINALS, chosen=(1, "A")).parts[1].bands
        if b.kind == "frame"
    )
    assert band.peak == (599, 559)
    assert planned(placement).parts[1].of("D").W[0, -1] == 344


def test_columns_that_do_not_fit_are_refused_with_the_arithmetic():
    placement = grid(1, 2, layout={"D": {"columns": 4}, "A": {"columns": 12, "gutter_px": 30}})
    with pytest.raises(
        InvalidPlan,
        match="12 columns do not fit at 320 px, span A: gutters and padding take 330 px",
    ) as error:
        planned(placement)
    assert error.value.field == "layout.A.columns"
    with pytest.raises(InvalidPlan, match="the outer margin 400") as error:
        planned(grid(1, layout={"D": {"columns": 1}, "A": {"margin_px": 200}}))
    assert error.value.field == "layout.A.margin_px"


def test_the_width_is_said_for_all_items():
    part = m.Part(treatments={"B": m.Treatment(original=1, width=m.FullWidth())})
    placement = grid(1, 2).with_part(1, part)
    with pytest.raises(InvalidPlan, match="item 2 says its own in span B") as error:
        planned(placement)
    assert error.value.field == "parts.1.treatments.B.width"


def test_an_item_takes_two_columns_where_there_are_two():
    wide = m.Item(title="Wide", wide=True)
    found = planned(grid(1, 2, 1, items={1: wide}))
    d, b, a = (found.parts[1].of(letter) for letter in "DBA")
    narrow = found.parts[0].of("D")
    assert d.W[0] == pytest.approx(2 * narrow.W[0] + 24)
    assert (d.H == narrow.H).all()
    assert a.W[0] == pytest.approx(a.viewport_w)
    # two columns of B are one row; the next item goes below
    assert (b.frame.x == 0).all() and (b.frame.y > 0).all()


def test_own_ratios_stay_own_in_justified_rows():
    placement = grid(1, 2, 3, 1, 2, layout={"D": {"arranged": "justified", "columns": 3}})
    for part in planned(placement).parts:
        for p in part.spans:
            ratio = p.spot.cells[p.index].ratio
            assert pytest.approx(ratio) == p.W / p.H
    # every filled row is as wide as the grid at every width
    d = [part.of("D") for part in planned(placement).parts]
    rows: dict[float, list] = {}
    for p in d:
        rows.setdefault(float(p.frame.y[0, 0]), []).append(p)
    first = next(iter(rows.values()))
    assert sum(p.W[0] for p in first) + (len(first) - 1) * 24 == pytest.approx(d[0].viewport_w)


def test_a_hidden_span_asks_for_no_file():
    placement = grid(1, 2, layout={"D": {"columns": 2}, "A": {"arranged": "hidden"}})
    for _, files in renditions(planned(placement)):
        assert all("A" not in r.spans for r in files)
    sources = html_of(placement).css("source[media='(max-width: 599px)']")
    assert len(sources) == 2 and all(s.attributes["srcset"].startswith("data:") for s in sources)
    assert "display: none" in css_of(placement)


def test_equal_files_are_shared():
    """The same picture twice in cells of one size is made and named once."""
    once_, twice = (
        {r.name for _, files in renditions(planned(grid(*ids))) for r in files}
        for ids in ((1, 2), (1, 2, 1))
    )
    assert {n.removeprefix("nine-things") for n in twice} == {
        n.removeprefix("nine-things") for n in once_
    }


@pytest.mark.slow
@pytest.mark.parametrize("ids", [(4,), (None,), (1, None, 4), tuple([1, 2, 3, 4] * 25)])
def test_strips_of_1_to_20_one_item_and_none_can_be_had(ids):
    for arranged in ("cells", "justified", "masonry", "rows", "slides", "pages", "list", "hidden"):
        placement = grid(*ids, layout={"D": {"arranged": arranged, "columns": 2}})
        found = read(SITE, placement, ORIGINALS, chosen=(0, "C"))
        assert len(found.items.items) == len(ids)
        assert set(found.parts) == {0}


def test_two_thousand_items_are_too_many_by_one():
    part = m.Part()
    assert m.Placement(name="Many", kind="grid", parts=(part,) * 2000)
    with pytest.raises(ValidationError):
        m.Placement(name="Many", kind="grid", parts=(part,) * 2001)


# -- captions, links, more -----------------------------------------------------------------


def test_captions_and_links_are_text():
    items = {
        0: m.Item(title="</li><script>", text="a & b", href="/x?a=1&b=2"),
        1: m.Item(title="  "),
    }
    html = html_of(grid(1, 2, items=items))
    assert [n.tag for n in html.css("ul > li > figure > *")] == ["a", "figcaption", "picture"]
    assert html.css_first("figcaption > b").text() == "</li><script>"
    assert html.css_first("figcaption > span").text() == "a & b"
    assert html.css_first("li a").attributes["href"] == "/x?a=1&b=2"
    with pytest.raises(ValidationError, match="cannot lead to"):
        m.Item(href="java\nscript:alert(1)")


def test_only_the_first_row_of_a_lead_grid_loads_at_once():
    html = html_of(grid(1, 2, 3, 1, 2, lead=True))
    assert [n.attributes["loading"] for n in html.css("img")] == ["eager"] * 3 + ["lazy"] * 2
    assert sum(n.attributes.get("fetchpriority") == "high" for n in html.css("img")) == 1


def test_more_shows_the_rest_without_a_script():
    layout = {"D": {"columns": 3, "first": 0, "more": "All of them"}, "A": {"first": 2}}
    html = html_of(grid(1, 2, 3, 1, layout=layout))
    link = html.css_first("li[data-more] a")
    assert link.text() == "All of them"
    assert html.css_first(link.attributes["href"]).tag == "li"
    assert html.css(link.attributes["href"])[0] == html.css("ul > li")[2]
    css = css_of(grid(1, 2, 3, 1, layout=layout))
    narrow = css[css.index("(max-width: 599px)") :]
    waits = (
        ".nine-things > :nth-child(3),\n  .nine-things > :nth-child(4) {\n    display: var(--more"
    )
    assert waits in narrow and "var(--more" not in css[: css.index("@media")]
    assert not html_of(grid(1, 2, 3)).css("[data-more]")


def test_what_turns_can_be_reached_by_keyboard():
    html = html_of(
        grid(1, 2, layout={"D": {"columns": 2}, "A": {"arranged": "slides", "columns": 1}})
    )
    box = html.css_first("ul")
    assert box.attributes["tabindex"] == "0" and box.attributes["aria-label"] == "Nine things"
    assert "tabindex" not in html_of(grid(1, 2)).css_first("ul").attributes


# -- all of them ---------------------------------------------------------------------------


def test_the_band_of_all_is_the_worst_of_them():
    """3:2 cells cut the upright stack, which needs four fifths of its height."""
    found = read(SITE, grid(1, 2, 3), ORIGINALS, chosen=(0, "D"))
    (run,) = found.items.together.runs
    assert run.verdict == "cut" and run.worst == pytest.approx(2 / 3, abs=1e-4)
    assert {f.parts for f in found.items.failing} == {(2,)}
    assert [i.findings > 0 for i in found.items.items][2]
    # cells that are high enough hold it, and lose least where they are as high as has to be
    ratio = found.items.ratio
    assert ratio.cuts == ()
    held = grid(1, 2, 3)
    held = held.model_copy(
        update={"common": {"D": m.Treatment(height=m.RatioHeight(w=ratio.ratio, h=1))}}
    )
    again = read(SITE, held, ORIGINALS, chosen=(0, "D"))
    assert [r.verdict for r in again.items.together.runs] == ["whole"]


def test_the_chosen_item_alone_is_read_in_full():
    placement = grid(1, 2, 3)
    whole = read(SITE, placement, ORIGINALS, chosen=(2, "B"))
    assert set(whole.parts) == {2} and whole.parts[2].detail.letter == "B"
    moving = read_moving(SITE, placement, ORIGINALS, chosen=(2, "B"))
    assert set(moving.parts) == {2}
    assert moving.parts[2].spans[0].model_dump() == {
        k: v
        for k, v in whole.parts[2].spans[0].model_dump().items()
        if k in type(moving.parts[2].spans[0]).model_fields
    }


def test_what_did_not_change_is_taken_from_before():
    """An item is aimed otherwise: the others' windows are the very same."""
    before = planned(grid(1, 2, 3))
    part = m.Part(treatments={"D": m.Treatment(original=2, aim=m.FixedAim(x=0.1, y=0.9))})
    after = planned(grid(1, 2, 3).with_part(1, part))
    for letter in "ABCD":
        same = [
            a.of(letter) is b.of(letter) for a, b in zip(before.parts, after.parts, strict=True)
        ]
        assert same == [True, False, True]
    moved = planned(grid(1, 2, 3).with_part(0, m.Part(treatments={"D": m.Treatment(original=3)})))
    assert np.array_equal(moved.parts[2].of("D").W, after.parts[2].of("D").W)


def test_every_value_has_a_name():
    assert all(
        " " in name or name in ("arrangement", "columns", "gutter", "captions")
        for name in value_names("grid").values()
    )


def found_in(placement):
    return {(f.rule, f.part) for f in read(SITE, placement, ORIGINALS).findings}


def test_a_link_without_a_name_is_found():
    leads = {0: m.Item(href="/buoy")}
    assert ("link-unnamed", 0) not in found_in(grid(1, 2, items=leads))
    silent = grid(1, 2, items=leads)
    silent = silent.with_part(0, silent.parts[0].model_copy(update={"alt": ""}))
    assert ("link-unnamed", 0) in found_in(silent)


def test_more_of_nothing_and_two_columns_of_one_are_found():
    layout = {"D": {"columns": 1, "first": 9}, "B": {"first": 2}}
    found = found_in(grid(1, 2, 3, layout=layout, items={1: m.Item(wide=True)}))
    assert {("more-of-none", 0), ("wide-in-one", 1)} <= found
    assert ("wide-in-one", 1) not in found_in(grid(1, 2, 3, items={1: m.Item(wide=True)}))


def test_history_says_what_was_done_to_items():
    before = grid(1, 2, 3)

    def said(after):
        return differences(Version(before, {}), Version(after, {}))

    moved = before.model_copy(update={"parts": (before.parts[2], *before.parts[:2])})
    assert said(moved) == ("Order of the items",)
    assert said(before.model_copy(update={"parts": before.parts[:2]})) == ("1 item fewer",)
    titled = before.parts[1].model_copy(update={"item": m.Item(title="A tern")})
    assert said(before.with_part(1, titled)) == ("Caption of item 2",)
    wider = before.model_copy(update={"layout": {**before.layout, "D": {"columns": 4}}})
    assert said(wider) == ("Columns of span D",)


def test_a_width_is_told_as_its_sum():
    """Container 1080, gutter 60, three columns: 320 (common practice); padding is inside."""
    layout = {"D": {"columns": 3, "gutter_px": 60}, "C": {"padding_px": 10}}
    placement = grid(1, 2, layout=layout)
    width = m.ShareWidth(percent=100, of="container")
    held = m.Treatment(width=width, height=m.RatioHeight(w=3, h=2))
    placement = placement.model_copy(update={"common": {"D": held}})
    spans = {s.letter: s for s in read(SITE, placement, ORIGINALS, chosen=(0, "D")).parts[0].spans}
    assert spans["D"].sums[-1].text == "100 % of 1080 = 1080; (1080 − 2·60)/3 = 320"
    assert spans["C"].sums[-1].text.endswith("(1080 − 2·60)/3 = 320; 320 − 2·10 = 300")


def test_equal_rules_of_many_items_are_written_once():
    css = css_of(grid(*[1, 2] * 20))
    assert css.count("aspect-ratio: 3 / 2") == 1
    assert css.count(".nine-things-40") == 2  # its frame and its picture, no more
    assert len(css.encode()) < 6000


# -- what is kept -----------------------------------------------------------------------------


def moved(placement, part, x):
    own = placement.parts[part].treatments["D"].model_copy(update={"aim": m.FixedAim(x=x, y=0.5)})
    there = placement.parts[part].model_copy(update={"treatments": {"D": own}})
    return placement.with_part(part, there)


def test_a_part_for_which_nothing_has_changed_is_that_of_the_plan_before():
    before = planned(moved(grid(1, 2, 3, 4), 1, 0.1))
    after = planned(moved(grid(1, 2, 3, 4), 1, 0.9))
    assert [a is b for a, b in zip(before.parts, after.parts, strict=True)] == [
        True,
        False,
        True,
        True,
    ]
    # another ratio for all is another part each
    other = grid(1, 2, 3, 4, common={"D": m.Treatment(height=m.RatioHeight(w=2, h=1))})
    assert not any(a is b for a, b in zip(after.parts, planned(other).parts, strict=True))


@pytest.mark.slow
def test_what_is_kept_of_parts_goes_with_them():
    """Readings of ever other placements leave no more behind than the last of them."""
    store = Store()
    store.many.most_bytes = 10_000_000

    def left():
        gc.collect()
        return sum(isinstance(o, PartPlan) for o in gc.get_objects())

    def rounds(first, n):
        for i in range(first, first + n):
            placement = grid(1, 2, 3, 4, name=f"Nine things {i}")
            read(SITE, placement, ORIGINALS, chosen=(1, "D"), every=bool(i % 2), store=store)

    rounds(0, 40)
    known = left()
    rounds(40, 40)
    assert left() <= known


def test_of_large_galleries_fewer_plans_are_kept():
    """Windows at every width take memory: a gutter that is dragged through many values must not
    keep each of them. The last plan stays whatever its size."""
    store = Store()
    latest = store.many

    def planned(placement):
        return plan(SITE, placement, ORIGINALS, store=store)

    planned(grid(1, 2, 3, 4))
    latest.most_bytes = 5 * latest.bytes // 2
    for gutter in range(20):
        planned(grid(1, 2, 3, 4, layout={"D": {"gutter_px": gutter}}))
        assert latest.bytes <= latest.most_bytes
    before = planned(grid(*[1, 2, 3, 4] * 5))
    assert latest.bytes > latest.most_bytes
    after = planned(moved(grid(*[1, 2, 3, 4] * 5), 1, 0.9))
    assert [a is b for a, b in zip(before.parts, after.parts, strict=True)].count(False) == 1


def test_a_reading_of_one_item_is_part_of_the_whole_reading():
    """Without `every` the files and ladders are those of the chosen item, all else is as with
    it."""
    placement = grid(1, 2, 3, 4)
    whole = read(SITE, placement, ORIGINALS, chosen=(2, "D"))
    one = read(SITE, placement, ORIGINALS, chosen=(2, "D"), every=False)
    assert one.files == tuple(f for f in whole.files if f.part == 2)
    assert one.ladders == tuple(x for x in whole.ladders if x.part == 2)
    assert one.findings == whole.findings
    items = whole.items.model_copy(update={"weight": None})
    assert (one.pane, one.items, one.parts) == (whole.pane, items, whole.parts)
    assert one.code.markup_text == ""
    assert one.code.sizes == {2: whole.code.sizes[2]}


def test_all_items_weigh_what_each_of_them_does():
    """Where files are made; where one of them is not, nobody knows what all weigh."""
    placement = grid(1, 2, 3, 4)
    of = {r.key: r.width_px * 7 for _, mine in renditions(planned(placement)) for r in mine}
    whole = read(SITE, placement, ORIGINALS, made_bytes=lambda keys: of)
    weighed = [
        next(b for b in part.bands if b.kind == "weight").curve for part in whole.parts.values()
    ]
    for width in (320, 599, 600, 1024, 2560):
        each = [np.interp(width, *zip(*curve.points, strict=True)) for curve in weighed]
        of_all = np.interp(width, *zip(*whole.items.weight.curve.points, strict=True))
        assert of_all == pytest.approx(sum(each))
    unmade = next(iter(of))
    some = read(
        SITE,
        placement,
        ORIGINALS,
        made_bytes=lambda keys: {k: v for k, v in of.items() if k != unmade},
    )
    assert "unknown" in {r.verdict for r in some.items.weight.runs}


def test_a_padding_may_be_a_share_of_the_grid():
    """Check values (common practice): with 1 % of padding three across are 31.33 % wide, two 48 %,
    four 23 %."""
    for columns, percent in ((3, 31.333333), (2, 48), (4, 23)):
        layout = {"D": {"columns": columns, "gutter_px": 0, "padding_percent": 1}}
        p = planned(grid(1, 2, 3, 4, layout=layout)).parts[0].of("D")
        assert p.W[0] == pytest.approx(p.viewport_w * percent / 100, rel=1e-6)
    # where it is a share, px say nothing; beside a margin and gutters it is one of what is inside
    layout = {"D": {"columns": 2, "gutter_px": 20, "margin_px": 50, "padding_percent": 2}}
    layout["D"]["padding_px"] = 30
    p = planned(grid(1, 2, layout=layout)).parts[0].of("D")
    content = p.viewport_w - 100
    assert p.W[0] == pytest.approx((content - 20) / 2 - 2 * 0.02 * content)
    with pytest.raises(InvalidPlan, match="4 columns do not fit") as refused:
        planned(grid(1, layout={"D": {"columns": 4, "padding_percent": 13}}))
    assert refused.value.field == "layout.D.columns"


def test_a_page_with_empty_places_is_found():
    """Three across and four on a page: two places of six are empty on every page (common
    practice)."""
    layout = {"D": {"arranged": "pages", "columns": 3, "page_of": 4}, "A": {"columns": 2}}
    six = read(SITE, grid(1, 2, 3, 1, 2, 3, layout=layout), ORIGINALS).findings
    found = [f for f in six if f.rule == "page-hole"]
    assert {s for f in found for s in f.spans} == {"B", "C", "D"}
    assert "2 of 6 places of every page are empty. Take 3 or 6 on a page." in found[0].sentence
    # one page alone has no pages to turn
    one = grid(1, 2, 3, 1, layout=layout)
    assert "page-hole" not in {rule for rule, _ in found_in(one)}


def test_what_was_set_for_all_before_is_left_alone():
    """A placement that becomes a grid begins with cells of 3:2 at its widest, but for a span in
    which somebody has said something of all already."""
    square = m.RatioHeight(w=1, h=1)
    plain = m.Placement(name="Nine", parts=(m.Part(treatments={"D": m.Treatment(original=1)}),))
    assert begun("grid", SITE, plain).common["D"].height == m.RatioHeight(w=3, h=2)
    own = m.Treatment(height=square)
    for said in ({"D": own}, {"B": own}, {"D": m.Treatment(background="#102030")}):
        made = begun("grid", SITE, plain.model_copy(update={"common": said}))
        assert {letter: made.common[letter] for letter in said} == said
