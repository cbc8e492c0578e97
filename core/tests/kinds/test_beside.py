"""Pictures with text beside them."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from selectolax.lexbor import LexborHTMLParser
from skypane import findings_of
from skypane import model as m
from skypane.errors import InvalidPlan
from skypane.files.renditions import renditions
from skypane.kinds.beside.layout import text_rooms
from skypane.layouts import begun
from skypane.markup.lines import text_of
from skypane.markup.picture import placement_lines
from skypane.reading import read
from skypane.shown.plan import plan

SITE = m.Site()
ORIGINALS = {
    i: m.Original(id=i, name=f"{i}.jpg", width_px=6000, height_px=4000, sha256=str(i), alt="Shed")
    for i in range(1, 4)
}
ITEM = m.Item(title="In the cottage", text="The stove is lit.\nTea is on the shelf.", href="/tea")


def beside(layout, n=1, item=ITEM):
    parts = tuple(
        m.Part(treatments={"D": m.Treatment(original=i)}, item=item) for i in range(1, n + 1)
    )
    made = begun("beside", SITE, m.Placement(name="Where to wait", parts=parts))
    return made.model_copy(update={"layout": layout})


def planned(placement):
    return plan(SITE, placement, ORIGINALS)


@pytest.mark.slow
@given(
    share=st.floats(5, 99.9),
    between=st.floats(0, 60),
    columns=st.integers(1, 4),
    gutter=st.floats(0, 60),
    margin=st.floats(0, 40),
)
def test_picture_gap_and_text_make_up_the_row(share, between, columns, gutter, margin):
    layout = {
        "D": {
            "share_percent": share,
            "between_px": between,
            "columns": columns,
            "gutter_px": gutter,
            "margin_px": margin,
        }
    }
    made = beside(layout, n=columns if columns < 4 else 3)
    narrowest = share / 100 * (320 - 2 * margin - (columns - 1) * gutter) / columns
    if narrowest < 1:
        with pytest.raises(InvalidPlan, match="in a row do not fit at 320 px"):
            planned(made)
        return
    assume(narrowest >= 2)  # between them the height of the frame is what is missing
    computed = planned(made)
    for p, spot in zip(computed.parts[0].spans, computed.spots, strict=True):
        row = columns * (p.W[0] + between + text_rooms(spot))
        assert row + (columns - 1) * gutter + 2 * margin == pytest.approx(p.viewport_w)
        assert p.W[0] == pytest.approx(share / 100 * (p.W[0] + between + text_rooms(spot)))


def test_shares_of_25_50_and_100_percent():
    """In a container of 1080 px: 270, 540 and, stacked, all of it (worked from the rule)."""
    for share, width in ((25, 270), (50, 540), (100, 1080)):
        made = beside({"D": {"share_percent": share}})
        held = {"D": m.Treatment(width=m.ShareWidth(percent=100, of="container"))}
        p = planned(made.model_copy(update={"common": held})).parts[0].of("D")
        assert p.W[0].tolist() == pytest.approx([width] * p.W.shape[1])


@pytest.mark.parametrize("share", [100.5, 120, 300])
def test_more_than_the_row_is_refused_with_the_arithmetic(share):
    with pytest.raises(
        InvalidPlan, match=rf"leaves 100 − {share:g} = .* % for the text"
    ) as refused:
        planned(beside({"B": {"share_percent": share}}))
    assert refused.value.field == "layout.B.share_percent"


def test_a_text_that_is_squeezed_is_found_with_its_widths():
    made = beside({"D": {"share_percent": 60, "between_px": 24}})
    (found,) = [f for f in findings_of(planned(made)) if f.rule == "text-squeezed"]
    # 40 % of 320 less 24; 160 px are left from 460 px of page on
    assert found.spans == ("A",)
    assert "104 px beside its picture at 320 px" in found.sentence
    assert "Up to 459 px" in found.sentence
    stacked = beside({"D": {"share_percent": 60}, "A": {"share_percent": 100}})
    assert "text-squeezed" not in {f.rule for f in findings_of(planned(stacked))}


def test_text_is_text_and_the_heading_is_the_link():
    item = m.Item(title="<b>Tea</b>", text="<script>x()</script>", href="/tea?a=1&b=2")
    computed = planned(beside({"D": {}}, item=item))
    html = text_of(placement_lines(computed, renditions(computed)))
    assert "<script>" not in html
    (link,) = LexborHTMLParser(html).css("h2 > a")
    assert link.attributes["href"] == "/tea?a=1&b=2"
    assert link.text() == "<b>Tea</b>"


def test_it_begins_with_its_name_for_a_title_and_stacked_where_it_is_narrow():
    made = begun("beside", SITE, m.Placement(name="The jetty"))
    assert made.parts[0].item.title == "The jetty"
    words = {s.letter: s.values.share_percent for s in read(SITE, made, {}).layout}
    assert words == {"A": 100, "B": 50, "C": 50, "D": 50}


def test_the_widest_need_is_said_over_the_spans():
    """600 px at 600 against 451 at 1440 (common practice): 100 % to 600, 48 % to 1024, 31.33 %
    above; of 2000 × 2000 px pictures in squares, on a site whose last width is 1440."""
    site = m.Site(narrowest=320, widest=1440, breakpoints=(600, 1024))
    originals = {1: ORIGINALS[1].model_copy(update={"width_px": 2000, "height_px": 2000})}
    grid = begun(
        "grid",
        site,
        m.Placement(name="G", parts=(m.Part(treatments={"C": m.Treatment(original=1)}),)),
    )
    square = m.RatioHeight(w=1, h=1)
    common = {
        letter: m.Treatment(width=m.ShareWidth(percent=percent), height=square)
        for letter, percent in (("C", 31.33), ("B", 48), ("A", 100))
    }
    layout = {"C": {"columns": 1, "gutter_px": 0}}
    made = grid.model_copy(update={"common": common, "layout": layout})
    said = read(site, made, originals, chosen=(0, "C")).items.largest
    assert said == "The largest file is needed on A, 600 px wide at 1x; on B, 492 px, on C, 452 px."
