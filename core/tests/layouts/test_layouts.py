"""A new kind of placement is one module: `pair.py` beside this file, as rich as those that come
with the package. Everything from what shows to the hand-over works for it, and nothing else knows
of it."""

import json

import pytest
from pair import Pair, PairReading
from planned import delivered
from selectolax.lexbor import LexborHTMLParser
from skypane.advice.remedies import Remedy
from skypane.advice.walk import applied
from skypane.carried import respan
from skypane.changes import Version, with_area_renamed
from skypane.changes import named as named_step
from skypane.errors import InvalidPlan
from skypane.findings import rules
from skypane.handing_down import Origin
from skypane.handover import finish
from skypane.layouts import begun, kind_names
from skypane.model import (
    Area,
    Item,
    Original,
    Part,
    Placement,
    RatioHeight,
    Rect,
    Site,
    Treatment,
    picture,
)
from skypane.picks import Environment, pick
from skypane.reading import read, read_moving
from skypane.shown.plan import plan
from skypane.treatments import resolve

SITE = Site()
TOWER = Area(name="Tower", rect=Rect(x=0.7, y=0.3, w=0.25, h=0.4))
QUAY = Original(
    id=1, name="quay.jpg", width_px=4000, height_px=2000, sha256="q", alt="Quay", areas=(TOWER,)
)
BOAT = Original(id=2, name="boat.jpg", width_px=3000, height_px=3000, sha256="b", alt="Boat")
BOTH = {1: QUAY, 2: BOAT}
PAIR = Placement(
    name="Harbour",
    kind="pair",
    common={"D": Treatment(height=RatioHeight(w=3, h=2)), "B": Treatment(background="#102030")},
    parts=(
        Part(treatments={"D": Treatment(original=1), "A": Treatment(height=RatioHeight(w=1, h=2))}),
        Part(treatments={"D": Treatment(original=2, background="#ffffff")}),
    ),
    layout={"D": {"gap_px": 20}, "A": {"gap_px": 8}},
)


def test_frames_and_places_at_every_width():
    found = plan(SITE, PAIR, BOTH)
    a, d = ([part.at(letter) for part in found.parts] for letter in "AD")
    assert [p.frame.W[0, 0] for p in a] == [156, 156]  # (320 − 8)/2
    assert [p.frame.x[0, 0] for p in a] == [0, 164]
    assert [p.frame.H[0, 0] for p in a] == [312, 104]  # 1:2 of its own, 3:2 for all parts
    assert [p.frame.W[0, -1] for p in d] == [1270, 1270]  # (2560 − 20)/2


def test_values_for_all_parts_are_handed_down_and_the_nearest_own_value_wins():
    first, second = resolve(SITE, PAIR)
    assert first["C"].origin["height"] == Origin("D", "all") and first["A"].origin[
        "height"
    ] == Origin("A", "part")
    # a part's own colour of D is farther away than the colour for all of B
    assert second["C"].effective.background == "#ffffff"
    assert second["A"].effective.background == "#102030"
    assert second["A"].origin["background"] == Origin("B", "all")


def test_the_delivery_has_both_pictures_in_their_box():
    made = delivered(SITE, PAIR, BOTH)
    html = LexborHTMLParser(made.texts["snippet.html"])
    assert [n.attributes["class"] for n in html.css("div.harbour picture")] == [
        "harbour-1",
        "harbour-2",
    ]
    assert [n.attributes["alt"] for n in html.css("img")] == ["Quay", "Boat"]
    for i, node in enumerate(html.css("picture"), 1):
        found = pick(node.html, Environment(width=400, height=800, density=2)).url
        assert found is not None and found.startswith(f"images/harbour-{i}")
    css = made.texts["picture.css"]
    assert ".harbour {\n  display: flex;\n  align-items: flex-start;\n  gap: 20px;\n}" in css
    assert ".harbour-2 {" in css and "width: calc((100% - 8px) / 2)" in css
    assert len({f.name for f in made.files}) == len(made.files)
    manifest = json.loads(finish(made, {}).texts["manifest.json"])
    assert [p["alt"] for p in manifest["parts"]] == ["Quay", "Boat"]
    # 1270 CSS px of a 3:2 frame, drawn from a 2:1 picture that is cut to what shows
    assert max(f.needed_px for f in made.files if f.name.startswith("harbour-1")) == 2540


def test_the_reading_tells_the_parts_apart():
    reading = read(SITE, PAIR, BOTH)
    quay, boat = reading.parts.values()
    assert [b.name for b in quay.bands if b.kind == "area"] == ["Tower"]
    assert [b.name for b in boat.bands if b.kind == "area"] == []
    assert {f.part for f in reading.files} == {0, 1}
    assert {(f.rule, f.part) for f in reading.findings} <= {
        ("area", 0),
        ("soft", 1),
        ("soft", 0),
        ("no-area", 1),
    }
    assert reading.code.sizes[0].startswith("(max-width: 599px) calc(50vw - 4px)")
    assert "harbour-2" in reading.pane.css


def test_a_remedy_changes_its_part_alone():
    site = Site(breakpoints=())
    tall = PAIR.model_copy(
        update={"common": {"A": Treatment(height=RatioHeight(w=1, h=4))}, "layout": {}}
    )
    parts = (Part(treatments={"A": Treatment(original=1)}),) * 2
    tall = tall.model_copy(update={"parts": parts})
    advice = read(site, tall, BOTH).parts[1].advice[0]
    helped = applied(tall, 1, "A", advice.steps[advice.best])
    assert helped.parts[0] == tall.parts[0]
    assert not read(site, helped, BOTH).parts[1].advice
    assert named_step(Version(tall, {}), Version(helped, {})) == "Height of span A in part 2"


def _flat_in_b(common: dict[str, Treatment]) -> tuple[Placement, Remedy]:
    """A pair whose second span is so flat that areas are cut, and the ratio that helps there."""
    flat = {"B": Treatment(original=1, height=RatioHeight(w=8, h=1))}
    parts = (Part(treatments=flat),) * 2
    placement = PAIR.model_copy(update={"parts": parts, "common": common, "layout": {}})
    found = read(Site(breakpoints=(599,)), placement, BOTH).parts[0].advice
    advice = next(a for a in found if a.span == "B")
    return placement, next(s for s in advice.steps if s.kind == "ratio")


def test_a_remedy_sets_its_span_alone_and_says_which_spans_are_handed_it_down():
    """So that no narrower span is left with an old value as its own."""
    placement, ratio = _flat_in_b({})
    assert ratio.works and ratio.follow == ("A",)
    helped = applied(placement, 0, "B", ratio)
    assert set(helped.parts[0].treatments) == {"B"}
    resolved = resolve(Site(breakpoints=(599,)), helped)[0]
    assert resolved["A"].effective.height == resolved["B"].effective.height
    assert resolved["A"].origin["height"] == Origin("B", "part")


def test_a_remedy_is_not_handed_down_past_what_is_said_for_all_parts_there():
    placement, ratio = _flat_in_b({"A": Treatment(height=RatioHeight(w=1, h=1))})
    assert ratio.works and ratio.follow == ()
    helped = applied(placement, 0, "B", ratio)
    assert resolve(Site(breakpoints=(599,)), helped)[0]["A"].origin["height"] == Origin("A", "all")


def test_an_area_called_otherwise_is_followed_for_all_parts_too():
    keeps = Treatment(keeps=("Tower", "Mast"))
    both = PAIR.model_copy(update={"common": {"D": keeps, "A": Treatment(fit="cover")}})
    moved = with_area_renamed(SITE, both, 1, ("Tower", "Light"))
    # the boat shows there too, and may have a Tower of its own
    assert moved.common["D"].keeps == ("Light", "Tower", "Mast")
    alone = both.model_copy(update={"parts": (both.parts[0], both.parts[0])})
    moved = with_area_renamed(SITE, alone, 1, ("Tower", "Light"))
    assert moved.common["D"].keeps == ("Light", "Mast")
    assert with_area_renamed(SITE, alone, 2, ("Tower", "Light")) == alone


def test_new_breakpoints_change_nothing_at_any_width():
    after = Site(breakpoints=(400, 599, 800, 1023, 1599))
    moved = respan(SITE, after, PAIR)
    before_, after_ = plan(SITE, PAIR, BOTH), plan(after, moved, BOTH)

    def at(found, part, width):
        p = next(p for p in found.parts[part].spans if p.span.first <= width <= p.span.last)
        i = width - p.span.first
        return p.effective, p.frame.W[0, i], p.frame.H[0, i], p.frame.x[0, i]

    for width in (320, 400, 401, 599, 600, 800, 801, 1023, 1024, 1600, 2560):
        for part in (0, 1):
            assert at(before_, part, width) == at(after_, part, width)


def test_a_kind_s_own_findings_are_told_of_it_alone():
    wide = PAIR.model_copy(update={"layout": {"D": {"gap_px": 200}}})
    found = [f for f in read(SITE, wide, BOTH).findings if f.rule == "gap"]
    assert [(f.spans, f.at, f.step) for f in found] == [(("A", "B", "C", "D"), "gap_px", "frame")]
    assert "gap" in {r.id for r in rules()}
    alone = picture("Quay", {"D": Treatment(original=1)})
    assert "gap" not in {f.rule for f in read(SITE, alone, BOTH).findings}


def test_what_a_kind_reads_of_its_own_is_told_and_counts_among_the_verdicts():
    wide = PAIR.model_copy(update={"layout": {"D": {"gap_px": 200}, "A": {"gap_px": 8}}})
    for found in (read(SITE, wide, BOTH), read_moving(SITE, wide, BOTH)):
        assert isinstance(found.own, PairReading)
        assert found.own.gaps == {"A": 8, "B": 200, "C": 200, "D": 200}
        told = json.loads(found.model_dump_json())
        assert told["own"]["kind"] == "pair" and told["own"]["gaps"]["B"] == 200
    whole = read(SITE, wide, BOTH)
    assert [s.values.gap_px for s in whole.layout] == [8, 200, 200, 200]
    assert json.loads(whole.model_dump_json())["layout"][1]["values"] == {"gap_px": 200}
    worst = {r.band for v in whole.verdicts for r in v.runs if r.first >= 600}
    assert "pair-holds" in worst
    assert read(SITE, picture("Quay", {"D": Treatment(original=1)}), BOTH).own is None


def test_captions_and_links_are_written_and_found():
    named = PAIR.parts[0].model_copy(update={"item": Item(title="Quay", href="/quay")})
    made = delivered(SITE, PAIR.with_part(0, named), BOTH)
    html = LexborHTMLParser(made.texts["snippet.html"])
    assert html.css_first("figure > a").attributes["href"] == "/quay"
    assert html.css_first("figcaption b").text() == "Quay"
    assert [n.attributes["class"] for n in html.css("div.harbour picture")] == [
        "harbour-1",
        "harbour-2",
    ]
    before, after = Version(PAIR, {}), Version(PAIR.with_part(0, named), {})
    assert named_step(before, after) == "Caption of item 1"


def test_what_a_kind_cannot_be_is_refused_with_a_sentence():
    assert {"picture", Pair.kind} <= set(kind_names())
    for wrong, said, field in (
        ({"kind": "carpet"}, "no kind of placement called carpet", "kind"),
        ({"parts": PAIR.parts[:1]}, "has 2 parts; this one has 1", "parts"),
        ({"layout": {"A": {"gap_px": "wide"}}}, "must be a number", "layout.A.gap_px"),
        ({"layout": {"A": {"columns": 3}}}, "not known here", "layout.A.columns"),
        ({"layout": {"K": {}}}, "no span K", "treatments"),
    ):
        with pytest.raises(InvalidPlan, match=said) as refused:
            plan(SITE, PAIR.model_copy(update=wrong), BOTH)
        assert refused.value.field == field


@pytest.mark.parametrize("kind", ["picture", "banner", "grid", "slides", "beside", "logo"])
@pytest.mark.parametrize("before", ["banner", "logo"])
def test_a_change_of_kind_is_never_refused_for_what_lies_beside_the_picture(kind, before):
    """A banner's mark and inset: each becomes an item where there are many, stays where the new
    kind knows it, else goes. What stands in for a picture under conditions stays with it."""
    roles = {"banner": ("mark", "inset"), "logo": ()}[before]
    own = {"D": Treatment(original=1)}
    first = Part(key="a", treatments=own)
    parts = (first, *(Part(role=role, treatments=own) for role in roles))
    dark = Part(of="a", when=("dark",), treatments=own)
    made = begun(kind, SITE, Placement(name="Was", kind=before, parts=(*parts, dark)))
    plan(SITE, made, BOTH)
    wanted = {"banner": [None, *roles] if before == "banner" else [None]}
    items = [None] * len(parts)
    many = kind in ("grid", "slides", "beside")
    assert [p.role for p in made.usual] == wanted.get(kind, items if many else [None])
    assert [(p.of, p.when) for p in made.parts if p.of] == [("a", ("dark",))]
