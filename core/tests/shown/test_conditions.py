"""Pictures that stand in for others while conditions hold (Media Queries 5, §12: what is asked of a
visitor's wishes; Media Queries 4, §4.4: orientation)."""

import json
from itertools import chain, combinations
from pathlib import Path

import pytest
from selectolax.lexbor import LexborHTMLParser
from skypane import model as m
from skypane.carried import respan
from skypane.errors import InvalidPlan
from skypane.files.renditions import renditions
from skypane.handing_down import Origin
from skypane.handover import Asked
from skypane.layouts import begun
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.pane import pane_lines
from skypane.markup.picture import placement_lines
from skypane.model.stored import lifted
from skypane.picks import Environment, pick
from skypane.reading import read, read_moving
from skypane.shown.plan import plan
from skypane.shown.seen import seen
from skypane.shown.variants import together
from skypane.treatments import resolve

SITE = m.Site(breakpoints=(599,))
TOWER = m.Area(name="Tower", rect=m.Rect(x=0.7, y=0.2, w=0.2, h=0.6))


def picture(id, w=3000, h=2000, **values):
    name = f"{id}.jpg"
    return m.Original(id=id, name=name, width_px=w, height_px=h, sha256=str(id), alt="", **values)


DAY, NIGHT, TALL, REST = (picture(i) for i in (1, 2, 3, 4))
ALL = {o.id: o for o in (DAY, NIGHT, TALL, REST)}
SETS = list(chain.from_iterable(combinations(m.FEATURES, n) for n in range(4)))


def other(when, of="a", **treatments):
    own = {letter: m.Treatment(**said) for letter, said in treatments.items()}
    return m.Part(of=of, when=when, treatments=own)


def placement(*others, kind="picture", **said):
    usual = {"B": m.Treatment(original=1, height=m.RatioHeight(w=3, h=2), **said)}
    parts = (m.Part(key="a", treatments=usual), *others)
    return m.Placement(name="Quay", kind=kind, parts=parts)


def environment(features, width=1200):
    return Environment(
        width=width,
        height=width + 1 if "portrait" in features else width - 1,
        color_scheme="dark" if "dark" in features else "light",
        reduced_motion="reduce" if "still" in features else "no-preference",
    )


def taken(made, features, width=1200, site=SITE):
    """What a browser of the standard takes, without folder and suffix."""
    computed = plan(site, made, ALL)
    html = text_of(placement_lines(computed, renditions(computed)))
    url = pick(html, environment(features, width)).url
    return url if url.startswith("data:") else url.split("/")[1].split("@")[0].split(".")[0]


THREE = placement(
    other(("dark",), B={"original": 2}),
    other(("dark", "portrait"), B={"original": 3}),
    other(("still",), B={"original": 4}),
)
#: Of those whose conditions hold the one with the most; of equals the one that stands first.
WANTED = {
    (): "quay",
    ("dark",): "quay-dark",
    ("portrait",): "quay",
    ("still",): "quay-still",
    ("dark", "portrait"): "quay-dark-portrait",
    ("dark", "still"): "quay-dark",
    ("portrait", "still"): "quay-still",
    ("dark", "portrait", "still"): "quay-dark-portrait",
}


@pytest.mark.parametrize("features", SETS, ids=lambda f: "+".join(f) or "usual")
@pytest.mark.parametrize("style", ["max-width", "min-width", "range"])
def test_the_one_with_most_conditions_is_taken_in_every_style(features, style):
    site = SITE.model_copy(update={"media_style": style})
    for width in (320, 599, 600, 1200):
        assert taken(THREE, features, width, site) == WANTED[features]


def test_panes_ask_under_the_same_conditions():
    html = text_of(pane_lines(plan(SITE, THREE, ALL), lambda o, *_: f"/{o.id}"))
    ids = {"quay": "/1", "quay-dark": "/2", "quay-dark-portrait": "/3", "quay-still": "/4"}
    for features, name in WANTED.items():
        assert pick(html, environment(features)).url == ids[name]


def test_in_a_span_without_a_picture_of_its_own_the_usual_one_holds():
    """What a variant says is handed down like anything else, until it lets the usual one show."""
    wide = placement(other(("dark",), B={"original": 2}, A={"show": "usual"}))
    assert [taken(wide, ("dark",), w) for w in (599, 600)] == ["quay", "quay-dark"]
    narrow = placement(other(("dark",), A={"original": 2}))
    assert [taken(narrow, ("dark",), w) for w in (599, 600)] == ["quay-dark--a", "quay"]


def test_colour_or_nothing_too_and_then_nothing_is_fetched():
    for show in ("colour", "nothing"):
        made = placement(other(("dark",), B={"show": show}))
        assert taken(made, ("dark",)).startswith("data:")
        assert taken(made, ()) == "quay"


def test_the_same_original_with_another_crop_and_frame():
    crop = m.Rect(x=0.5, y=0, w=0.5, h=1)
    made = placement(other(("portrait",), B={"crop": crop, "height": m.RatioHeight(w=1, h=1)}))
    computed = plan(SITE, made, ALL)
    usual, upright = (part.of("B") for part in computed.parts)
    assert upright.original is usual.original and upright.crop == crop and usual.crop != crop
    assert (upright.W == upright.H).all() and (usual.W == usual.H * 1.5).all()
    css = text_of(css_lines(computed))
    turned = css[css.index("(orientation: portrait)") :]
    assert ".quay.quay {" in turned and "aspect-ratio: 1 / 1;" in turned
    origins = resolve(SITE, made)[1]["A"].origin
    assert origins["crop"] == origins["height"] == Origin("B", "part")
    assert origins["original"] == Origin("B", "usual")


def test_what_two_say_otherwise_both_say_for_both_may_hold_at_once():
    made = placement(
        other(("dark",), B={"aim": m.FixedAim(x=0, y=0), "height": m.RatioHeight(w=5, h=4)}),
        other(("dark", "portrait"), B={"aim": m.FixedAim(x=1, y=1), "original": 3}),
    )
    css = text_of(css_lines(plan(SITE, made, ALL)))
    dark, both = (
        css.split("@media (prefers-color-scheme: dark) {")[1:],
        css.split("@media (prefers-color-scheme: dark) and (orientation: portrait) {")[1:],
    )
    assert "aspect-ratio: 5 / 4;" in dark[0] and "aspect-ratio: 3 / 2;" in both[0]


def test_a_position_that_is_exact_holds_for_its_own_picture_alone():
    """The demo's banner follows its areas by lengths in wide spans, which stand in `@supports`;
    what shows upright in narrow ones has percentages, and says them of its own."""
    told = Path(__file__).parents[1] / "delivered/every-kind/asked.json"
    asked = Asked.model_validate(lifted("asked", json.loads(told.read_text())))
    originals = {o.id: o for o in asked.originals}
    (made, *_) = asked.placements
    key = made.parts[0].model_copy(update={"key": "a"})
    upright = other(("portrait",), B={"show": "picture", "original": min(originals)})
    made = made.model_copy(update={"parts": (key, *made.parts[1:], upright)})
    css = text_of(css_lines(plan(asked.site, made, originals)))
    turned = css[css.index("(orientation: portrait)") :]
    assert "@supports" in css and "object-position: 50% 50%;" in turned


@pytest.mark.parametrize("kind", ["banner", "grid", "slides", "beside", "logo"])
def test_in_every_kind(kind):
    made = begun(kind, SITE, placement(other(("dark",), B={"original": 2})))
    assert taken(made, ("dark",)).startswith("quay-dark")
    assert not taken(made, ()).startswith("quay-dark")
    reading = read(SITE, made, ALL)
    assert set(reading.parts) == {0, 1} and reading.parts[1].place == 0
    html = text_of(placement_lines(plan(SITE, made, ALL), renditions(plan(SITE, made, ALL))))
    assert len(LexborHTMLParser(html).css("picture")) == 1


def test_of_many_each_has_its_own():
    parts = [m.Part(key=k, treatments={"B": m.Treatment(original=1)}) for k in "abc"]
    made = m.Placement(
        name="Views",
        kind="grid",
        parts=(*parts, other(("dark",), of="b", B={"original": 2})),
        layout={"B": {"columns": 3}},
    )
    computed = plan(SITE, made, ALL)
    assert [computed.place_of(p) for p in computed.parts] == [0, 1, 2, 1]
    html = text_of(placement_lines(computed, renditions(computed)))
    found = [n.html for n in LexborHTMLParser(html).css("picture")]
    dark = [pick(h, environment(("dark",))).url for h in found]
    assert ["dark" in url for url in dark] == [False, True, False]
    assert len(read(SITE, made, ALL).items.items) == 3
    # of the item that is worked on what stands in for it is read too, and the other way round
    for chosen in (1, 3):
        assert set(read(SITE, made, ALL, chosen=(chosen, "B"), every=False).parts) == {1, 3}
        assert set(read_moving(SITE, made, ALL, chosen=(chosen, "B")).parts) == {1, 3}
    assert set(read(SITE, made, ALL, chosen=(0, "B"), every=False).parts) == {0}


def test_findings_bands_and_files_are_of_the_variant_too():
    """In the dark the tower is out of view: that is found although nobody looks at it."""
    night = NIGHT.model_copy(update={"areas": (TOWER,)})
    dark = other(("dark",), B={"original": 2, "aim": m.FixedAim(x=0, y=0.5)})
    flat = {"height": m.RatioHeight(w=1, h=2)}
    made = placement(dark).model_copy(update={"common": {"B": m.Treatment(**flat)}})
    made = made.with_part(0, m.Part(key="a", treatments={"B": m.Treatment(original=1)}))
    reading = read(SITE, made, {**ALL, 2: night})
    assert ("area", 1) in {(f.rule, f.part) for f in reading.findings}
    assert [b.name for b in reading.parts[1].bands if b.kind == "area"] == ["Tower"]
    stems = [f.stem for f in reading.files if f.part == 1]
    assert stems and all("quay-dark" in stem for stem in stems)


def test_what_most_see_is_light_and_moves():
    """What a page weighs at a width is what a typical viewport takes there."""
    computed = plan(SITE, THREE, ALL)
    seen_of = [seen(computed, part) for part in computed.parts]
    assert seen_of[0].all() and not any(of.any() for of in seen_of[1:])
    turned = plan(SITE, placement(other(("portrait",), B={"original": 3})), ALL)
    usual, upright = (seen(turned, part) for part in turned.parts)
    assert (usual != upright).all() and upright[0] and usual[-1]


def test_what_shows_upright_is_not_called_a_colour():
    """Typical viewports of narrow spans stand upright: the picture for those is what is seen."""
    made = placement(other(("portrait",), B={"show": "picture", "original": 3}), show="colour")
    (plain, *_) = read(SITE, made, ALL).verdicts
    assert [(r.first, r.last, r.word) for r in plain.runs] == [
        (320, 1023, "sharp"),
        (1024, 2560, "only colour"),
    ]


def test_new_breakpoints_keep_what_every_width_did():
    made = placement(other(("dark",), B={"original": 2}, A={"show": "usual"}))
    after = m.Site(breakpoints=(599, 1000))
    moved = respan(SITE, after, made)
    for width in (320, 599, 600, 1000, 1001, 2000):
        for features in ((), ("dark",)):
            was, now = taken(made, features, width), taken(moved, features, width, after)
            assert was.split("--")[0] == now.split("--")[0]


@pytest.mark.parametrize(
    ("parts", "said", "field"),
    [
        ((m.Part(of="b", when=("dark",)),), "no part b", "parts.1.of"),
        ((other(("dark",)), other(("dark",))), "under the same conditions", "parts.2.when"),
        ((other(("dark",)), m.Part(role="mark")), "comes after all of them", "parts"),
    ],
)
def test_what_cannot_stand_in_is_refused_with_a_sentence(parts, said, field):
    with pytest.raises(InvalidPlan, match=said) as refused:
        plan(SITE, placement(*parts, kind="banner"), ALL)
    assert refused.value.field == field


def test_only_a_variant_can_show_the_usual_one_and_it_says_both_of_whom_and_when():
    with pytest.raises(InvalidPlan, match="show the usual one") as refused:
        plan(SITE, placement(show="usual"), ALL)
    assert refused.value.field == "parts.0.treatments.B.show"
    for wrong in ({"of": "a"}, {"when": ("dark",)}):
        with pytest.raises(ValueError, match="Say both, or neither"):
            m.Part(**wrong)


def test_conditions_have_one_order_and_stand_once():
    assert m.Part(of="a", when=("still", "dark", "still")).when == ("dark", "still")


def test_what_an_older_version_stored_of_a_logo_is_lifted():
    """What showed nothing in portrait let the logo itself be seen."""
    upright = {"B": {"show": "nothing"}, "A": {"show": "picture"}}
    old = {
        "version": 5,
        "name": "Mark",
        "kind": "logo",
        "parts": [
            {"treatments": {"B": {"original": 1}}},
            {"role": "portrait", "treatments": upright},
        ],
    }
    made = m.Placement.model_validate(lifted("placement", old))
    assert (made.parts[0].key, made.parts[1].of, made.parts[1].when) == (
        "picture",
        "picture",
        ("portrait",),
    )
    assert [made.parts[1].treatments[k].show for k in "BA"] == ["usual", "picture"]


def test_where_the_usual_one_shows_that_is_said_of_the_frame():
    made = placement(other(("dark",), B={"original": 2}, A={"show": "usual"}))
    for spans in (
        read(SITE, made, ALL).parts[1].spans,
        read_moving(SITE, made, ALL).parts[1].spans,
    ):
        assert [s.frame_text for s in spans] == ["as usual", "3:2"]


def test_all_conditions_that_can_hold_at_once_are_those_named_and_their_unions():
    named = [("dark",), ("portrait",), ("dark", "still")]
    assert together(named) == (
        ("dark",),
        ("portrait",),
        ("dark", "portrait"),
        ("dark", "still"),
        ("dark", "portrait", "still"),
    )
    assert together([]) == () and together([("still",)] * 2) == (("still",),)
