"""Whole pages: their head, the order of placements per span, what is too wide, what they weigh."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from selectolax.lexbor import LexborHTMLParser
from skypane import blueprint, page_in_spans, page_respanned, read_page, seen_in
from skypane import model as m
from skypane.errors import InvalidPlan
from skypane.files.renditions import renditions
from skypane.handover import Asked, AskedPage
from skypane.shown.plan import plan
from skypane.treatments import resolve

SITE = m.Site()
ORIGINALS = {
    i: m.Original(id=i, name=f"{i}.jpg", width_px=6000, height_px=4000, sha256=str(i), alt="A")
    for i in range(1, 4)
}


def picture(name, i=1, **values):
    return m.picture(name, {"D": m.Treatment(original=i, **values)})


THREE = (picture("One"), picture("Two", 2), picture("Three", 3))


def reading(layout=None, placements=THREE, **values):
    return read_page(
        SITE, layout or {}, placements, ORIGINALS, preview=lambda o, *_: o.name, **values
    )


def test_head_and_order_are_handed_down_from_wider_spans():
    layout = {
        "D": m.PageValues(head_px=72, order=(2, 0)),
        "B": m.PageValues(head_over=True),
        "A": m.PageValues(head_px=0, order=(1,)),
    }
    held = {
        h.span.letter: (h.head_px, h.head_over, h.order) for h in page_in_spans(SITE, layout, 3)
    }
    assert held == {
        "D": (72, False, (2, 0, 1)),
        "C": (72, False, (2, 0, 1)),
        "B": (72, True, (2, 0, 1)),
        "A": (0, True, (1, 0, 2)),
    }


@given(st.lists(st.integers(-3, 12), unique=True), st.integers(0, 9))
def test_every_placement_stands_once_in_the_order_whatever_was_said(order, n):
    (*_, held) = page_in_spans(SITE, {"D": m.PageValues(order=tuple(order))}, n)
    assert sorted(held.order) == list(range(n))


def test_spans_that_are_not_there_and_orders_that_say_a_thing_twice_are_refused():
    with pytest.raises(InvalidPlan, match="no span Q"):
        reading({"Q": m.PageValues(head_px=10)})
    with pytest.raises(ValueError, match="stands twice in the order"):
        m.PageValues(order=(1, 1))


@given(
    before=st.lists(st.integers(330, 2500), unique=True, max_size=6),
    after=st.lists(st.integers(330, 2500), unique=True, max_size=6),
    heads=st.lists(st.floats(0, 300), min_size=7, max_size=7),
)
def test_new_breakpoints_leave_what_held_at_the_last_width_of_each_span(before, after, heads):
    old = m.Site(breakpoints=tuple(sorted(before)))
    new = m.Site(breakpoints=tuple(sorted(after)))
    letters = "ABCDEFG"[: len(before) + 1]
    layout = {k: m.PageValues(head_px=h) for k, h in zip(letters, heads, strict=False)}
    moved = page_in_spans(new, page_respanned(old, new, layout), 0)
    if len(before) == len(after):
        return
    for h in moved:
        was = next(
            o for o in page_in_spans(old, layout, 0) if o.span.first <= h.span.last <= o.span.last
        )
        assert h.head_px == was.head_px


def test_the_delivered_page_has_its_own_sheet_only_where_it_needs_one():
    def texts(layout):
        page = AskedPage(title="Pictures", placements=THREE, layout=layout)
        asked = Asked(scope="site", site=SITE, pages=(page,), originals=tuple(ORIGINALS.values()))
        return blueprint(asked).texts

    assert "page-pictures.css" not in texts({})
    found = texts(
        {"D": m.PageValues(head_px=64, head_over=True), "A": m.PageValues(order=(2, 1, 0))}
    )
    tree = LexborHTMLParser(found["pictures.html"])
    sheets = [n.attributes["href"] for n in tree.css("link")]
    assert sheets == ["pictures.css", "page-pictures.css"]
    assert len(tree.css("header.page-head")) == 1
    # read in the order of the widest span
    shown = [n.attributes["class"] for n in tree.css("main > div > picture")]
    assert shown == ["one", "two", "three"]
    css = found["page-pictures.css"]
    assert "margin-bottom: -64px" in css
    assert css.index("@media (max-width: 599px)") < css.index("order: 2", css.index("@media"))


def test_a_page_shows_what_is_too_wide_and_where():
    wide = picture("Too wide", width=m.FixedWidth(width_px=700))
    found = reading(placements=(picture("One"), wide))
    (a, b) = found.overflows
    assert (a.placement, a.first, a.last, a.by_px, a.at) == (1, 320, 599, 380, 320)
    assert (b.first, b.last, b.by_px) == (600, 699, 100)
    fits = next(r for r in found.bands if r.kind == "fits")
    assert [(r.first, r.last, r.verdict) for r in fits.runs] == [
        (320, 699, "grows"),
        (700, 2560, "fits"),
    ]


def test_the_weight_of_a_page_is_the_sum_of_its_pictures():
    computed = [plan(SITE, p, ORIGINALS) for p in THREE]
    made = {r.key: 1000 for c in computed for _, mine in renditions(c) for r in mine}
    later = (THREE[0], *(p.model_copy(update={"lead": False}) for p in THREE[1:]))
    found = reading(placements=later, made_bytes=lambda keys: made)
    _, weight, at_once = found.bands
    assert {px for _, px in weight.curve.points} == {3000}
    assert {px for _, px in at_once.curve.points} == {1000}
    assert {r.verdict for r in reading().bands[1].runs} == {"unknown"}


def test_a_placement_that_cannot_be_computed_says_why_and_leaves_the_others():
    broken = picture("Broken", 9)
    found = reading(placements=(THREE[0], broken))
    assert [p.error is None for p in found.placements] == [True, False]
    assert "not in this site" in found.placements[1].error
    assert "1.jpg" in found.pane.markup


@given(
    shows=st.lists(st.sampled_from(["picture", "colour", "nothing"]), min_size=4, max_size=4),
    letter=st.sampled_from("ABCD"),
    on=st.booleans(),
)
def test_a_span_is_shown_or_not_and_no_other_one_changes(shows, letter, on):
    own = {k: m.Treatment(show=s) for k, s in zip("ABCD", shows, strict=True)}
    for treatments in (own, {"D": own["D"]}):
        placement = m.Placement(name="P", parts=(m.Part(treatments=treatments),))
        before = {k: r.effective.show for k, r in resolve(SITE, placement)[0].items()}
        moved = seen_in(SITE, placement, letter, on)
        after = {k: r.effective.show for k, r in resolve(SITE, moved)[0].items()}
        assert (after[letter] != "nothing") is on
        assert {k: v for k, v in after.items() if k != letter} == {
            k: v for k, v in before.items() if k != letter
        }
        if on and before[letter] != "nothing":
            assert after[letter] == before[letter]
