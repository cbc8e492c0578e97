"""Placements shaped by hand: where an edge is pulled to it then is, or it says why not."""

import random

import pytest
from pydantic import TypeAdapter
from skypane import model as m
from skypane.errors import InvalidPlan
from skypane.model import HeightRule, WidthRule
from skypane.pulls import Held, Lines, PulledTo, here, pulled, stage
from skypane.shown.plan import plan
from skypane.treatments import with_fields

SITE = m.Site()
BOAT = m.Area(name="Red boat", rect=m.Rect(x=0.7, y=0.6, w=0.2, h=0.3))
#: A full-frame camera's px, a phone's upright ones and a drawing's.
SIZES = [(6000, 4000), (3024, 4032), (1200, 400)]
ORIGINALS = {
    i: m.Original(
        id=i,
        name=f"{i} 岬.jpg",
        width_px=w,
        height_px=h,
        sha256=str(i),
        alt="A quay",
        areas=(BOAT,) if i == 1 else (),
    )
    for i, (w, h) in enumerate(SIZES, 1)
}
WORDS = m.Words(heading="The last light before the open sea", text="Every day.", buttons=())
KINDS = ("picture", "banner", "grid", "slides", "beside", "logo")


def placement(kind="picture", n=1, layout=None, common=None, **values):
    """The same frame in every span: the widest sets it."""
    held = {"height": m.RatioHeight(w=2, h=1), **values}
    own = {"D": m.Treatment(original=1, **held)}
    many = kind in ("grid", "slides", "beside")
    if many:
        own = {"D": m.Treatment(original=1)}
        common = {"D": m.Treatment(**held)}
    return m.Placement(
        name="Quay",
        kind=kind,
        words=WORDS if kind == "banner" else None,
        layout=layout or {},
        common=common or {},
        parts=tuple(m.Part(treatments=own) for _ in range(n)),
    )


def held(width=1280, letter="C", height=800, **values):
    return Held(letter=letter, width=width, height=height, **values)


def at(placed, *args, **values):
    return here(SITE, placed, ORIGINALS, held(*args, **values))


def pull(of, handle, to, **values):
    return pulled(of, ORIGINALS, PulledTo(handle=handle, to=to, **values))


_RULES = {"width": TypeAdapter(WidthRule), "height": TypeAdapter(HeightRule)}


def applied(placed, letter, found):
    """The placement with what a pull sets, as a desk does it."""
    fields = {
        k: _RULES[k].validate_python(v) if k in _RULES else v for k, v in found.treatment.items()
    } | dict.fromkeys(found.gone)
    own = {**placed.layout.get(letter, {}), **found.layout}
    placed = placed.model_copy(update={"layout": {**placed.layout, letter: own}})
    if not fields:
        return placed
    if found.of_all:
        common = with_fields(placed.common, letter, fields)
        return placed.model_copy(update={"common": common})
    parts = list(placed.parts)
    part = parts[found.part]
    treatments = with_fields(part.treatments, letter, fields)
    parts[found.part] = part.model_copy(update={"treatments": treatments})
    return placed.model_copy(update={"parts": tuple(parts)})


# -- where it is pulled to it is -------------------------------------------------------------


def some_width(rng):
    of = rng.choice(["page", "container"])
    bounds = {"greatest_px": rng.choice([500, 900, 1200])} if rng.random() < 0.3 else {}
    n = rng.choice([2, 3, 4])
    return rng.choice(
        [
            m.FullWidth(margin_px=rng.choice([0, 24]), **bounds),
            m.ShareWidth(percent=rng.choice([33.33, 50, 80]), of=of, **bounds),
            m.FixedWidth(width_px=rng.choice([300, 640])),
            m.ColumnsWidth(columns=n, take=rng.randint(1, n), gutter_px=24, of=of, **bounds),
            m.PercentColumnsWidth(columns=n, padding_percent=1, of=of, **bounds),
        ]
    )


def some_height(rng):
    bounds = {}
    if rng.random() < 0.3:
        bounds = {"least_px": 90, "greatest_px": rng.choice([400, 700])}
    return rng.choice(
        [
            m.RatioHeight(w=rng.choice([16, 4]), h=rng.choice([9, 3]), **bounds),
            m.FixedHeight(height_px=rng.choice([240, 480.5]), **bounds),
            m.ViewportHeight(percent=rng.choice([40, 66.6]), **bounds),
            m.NaturalHeight(**bounds),
        ]
    )


def layout_of(rng, kind):
    said = {
        "grid": {"columns": rng.randint(2, 5), "gutter_px": rng.choice([0, 24])},
        "slides": {"at_a_time": rng.randint(1, 3), "gutter_px": 16},
        "beside": {"share_percent": rng.choice([40, 60]), "columns": rng.choice([1, 2])},
        "logo": {"padding_px": rng.choice([0, 8])},
        "banner": {"place": rng.choice(["start", "bottom-end", "middle"]), "margin_px": 24},
    }.get(kind, {})
    return {"D": said} if said else {}


@pytest.mark.parametrize("kind", KINDS)
@pytest.mark.parametrize("seed", range(34))
def test_the_edge_is_where_it_was_pulled_to_or_says_why_not(kind, seed):
    """About 200 random frames; each handle at a random place; read from the placement anew."""
    rng = random.Random(f"{kind}{seed}")
    n = 1 if kind in ("picture", "banner", "logo") else 7
    stands = rng.choice(["start", "centre", "end"])
    placed = placement(
        kind,
        n,
        layout_of(rng, kind),
        width=some_width(rng),
        height=some_height(rng),
        stands=stands,
    )
    letter, width = rng.choice([("A", 390), ("B", 834), ("C", 1280), ("D", 1920)])
    try:
        plan(SITE, placed, ORIGINALS)
        of = at(placed, width, letter, rng.choice([667, 800, 1080]))
    except InvalidPlan:
        return
    for reading in stage(of, ORIGINALS, 2).handles:
        where = rng.uniform(reading.at_least, reading.at_most)
        where = min(where, (reading.x0 if reading.axis == "x" else reading.y0) + 900)
        found = pull(of, reading.id, where, free=True)
        now = at(applied(placed, letter, found), width, letter, of.held.height)
        handle = now.handle(reading.id)
        assert handle.at(now.spot) == pytest.approx(found.at, abs=0.05), reading.id
        if reading.step < 1 and found.bound is None:
            assert found.at == pytest.approx(where, abs=0.75), reading.id


@pytest.mark.parametrize("height", [m.RatioHeight(w=2, h=1), m.FixedHeight(height_px=500),
                                    m.ViewportHeight(percent=50), m.NaturalHeight()])  # fmt: skip
def test_a_lower_edge_keeps_its_unit(height):
    """What is as high as the picture is has no unit of its own, and becomes a ratio."""
    placed = placement(height=height)
    found = pull(at(placed), "height", 444, free=True)
    kind = "ratio" if height.kind == "natural" else height.kind
    assert found.treatment["height"]["kind"] == kind
    frame = plan(SITE, applied(placed, "C", found), ORIGINALS).parts[0].of("C").frame
    column = 1280 - 1024
    row = 1 if frame.H.shape[0] > 1 else 0
    if kind == "vh":  # of the typical height there
        assert found.treatment["height"]["percent"] == pytest.approx(444 / 8, abs=0.01)
    else:
        assert frame.H[row, column] == pytest.approx(444, abs=0.5)


def test_what_is_typed_is_what_is_set():
    of = at(placement(height=m.FixedHeight(height_px=500)))
    found = pulled(of, ORIGINALS, PulledTo(handle="height", value=333))
    assert found.treatment["height"]["height_px"] == 333 and found.at == 333
    assert found.told[0] == "1280 × 333"


# -- stops -----------------------------------------------------------------------------------


def stops(of, id_):
    handle = next(h for h in stage(of, ORIGINALS, 2).handles if h.id == id_)
    return {s.words: s.at for s in handle.stops}


def test_a_lower_edge_stops_at_ratios_the_fold_and_where_an_area_is_whole():
    """A frame of the whole page: heights by hand from 1280 px."""
    of = at(placement(), lines=Lines(fold=740, y=(568,)))
    found = stops(of, "height")
    assert found["2:1"] == 640 and found["16:9"] == 720 and found["the fold"] == 740
    assert found["the edge on the design"] == 568
    assert found["the picture's own ratio"] == pytest.approx(1280 * 4000 / 6000, abs=0.01)
    # the boat is 0.3 of the height that 1280 px of the picture have
    whole = found["Red boat is whole from here"]
    assert whole == pytest.approx(0.3 * 1280 * 4000 / 6000, abs=1)
    for offset, words in ((0.6, "Red boat whole"), (-2, "Red boat cut")):
        assert words in pull(of, "height", whole + offset, free=True).told


def test_near_a_stop_it_is_taken_and_free_it_is_not():
    of = at(placement())
    near = pull(of, "height", 717, near_px=6)
    assert near.stop == "16:9" and near.treatment["height"]["w"] == 16 and near.at == 720
    assert pull(of, "height", 717, near_px=2).stop is None
    free = pull(of, "height", 717, near_px=6, free=True)
    assert free.stop is None and free.at == pytest.approx(717, abs=0.1)


def test_what_the_wider_span_has_is_handed_down_again():
    placed = placement()
    own = m.Treatment(height=m.RatioHeight(w=4, h=1))
    parts = (
        placed.parts[0].model_copy(update={"treatments": {**placed.parts[0].treatments, "C": own}}),
    )
    placed = placed.model_copy(update={"parts": parts})
    of = at(placed)
    (handle,) = (h for h in stage(of, ORIGINALS, 2).handles if h.id == "height")
    assert handle.is_own
    found = pull(of, "height", 638, near_px=6)
    assert (found.stop, found.gone, found.treatment) == ("as D has it", ("height",), {})
    after = applied(placed, "C", found)
    assert after.parts[0].treatments["C"].height is None
    assert not next(h for h in stage(at(after), ORIGINALS, 2).handles if h.id == "height").is_own


def test_sides_stop_at_the_page_the_container_and_whole_columns():
    share = stops(at(placement(width=m.ShareWidth(percent=40))), "width.right")
    # 1280 px: a container of 1080 from 100 to 1180, halves of the page from 320 to 960
    assert (share["the page"], share["the container"], share["half of the page"]) == (
        1280,
        1180,
        960,
    )
    columns = m.ColumnsWidth(columns=3, take=1, gutter_px=60)
    found = stops(at(placement(width=columns, stands="start")), "width.right")
    # (1080 − 2·60)/3 = 320
    assert [found[f"{n} of 3 columns"] for n in (1, 2)] == [420, 800]
    assert found["the container"] == 1180


def test_of_a_grid_columns_and_gutter_can_be_pulled():
    of = at(placement("grid", 7, {"D": {"columns": 3, "gutter_px": 24}},
                      width=m.ShareWidth(percent=100, of="container")))  # fmt: skip
    assert stops(of, "columns")["2 columns"] == 100 + (1080 - 24) / 2
    assert stops(of, "columns")["1 column"] == 1180
    found = pull(of, "columns", 640)
    assert found.layout == {"columns": 2} and not found.treatment
    gutter = pull(of, "gutter_px", 480, free=True)
    # the second column begins at 100 + (1080 + g)/3
    assert gutter.layout["gutter_px"] == pytest.approx(3 * 380 - 1080, abs=0.5)


# -- bounds ----------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("placed", "handle", "to", "said"),
    [
        (placement(), "width.left", -80, "from edge to edge is the least"),
        (placement(height=m.RatioHeight(w=2, h=1, greatest_px=500)), "height", 700, "Its greatest"),
        (placement("grid", 3), "gutter_px", -500, "0 px is the least"),
        (
            placement("banner", height=m.FixedHeight(height_px=600)),
            "height",
            10,
            "needs the room",
        ),
        (placement("logo", width=m.FixedWidth(width_px=240)), "padding_px", 900, "is the greatest"),
    ],
)
def test_what_cannot_go_farther_says_why(placed, handle, to, said):
    found = pull(at(placed), handle, to, free=True)
    assert found.bound is not None and said in found.bound


def test_a_greatest_height_is_a_tick_of_its_own():
    of = at(placement(height=m.RatioHeight(w=2, h=1, greatest_px=500, least_px=100)))
    found = pull(of, "height.greatest_px", 620, free=True)
    assert found.treatment["height"]["greatest_px"] == 620
    # a greatest below the least takes that along
    found = pull(of, "height.greatest_px", 60, free=True)
    assert found.treatment["height"]["least_px"] == found.treatment["height"]["greatest_px"] == 60


def test_a_bound_that_holds_the_width_is_what_is_pulled():
    of = at(placement(width=m.FullWidth(greatest_px=900)))
    found = pull(of, "width.right", 1140, free=True)
    assert found.treatment["width"] == {
        "kind": "full", "margin_px": 0, "least_px": None, "greatest_px": 1000,
    }  # fmt: skip


@pytest.mark.parametrize("value", [-5, 0, 1e6])
def test_a_value_that_cannot_be_is_refused_with_its_bound(value):
    of = at(placement(height=m.FixedHeight(height_px=500)))
    with pytest.raises(InvalidPlan, match=r"least|greatest"):
        pulled(of, ORIGINALS, PulledTo(handle="height", value=value))


def test_a_bound_is_never_told_as_nothing():
    with pytest.raises(InvalidPlan, match=r"−3 cannot be had; 0\.001 is the least"):
        pulled(at(placement()), ORIGINALS, PulledTo(handle="height", value=-3))


def test_what_is_gone_cannot_be_pulled():
    with pytest.raises(InvalidPlan, match="no such edge"):
        pull(at(placement()), "gutter_px", 3)
    with pytest.raises(InvalidPlan, match="no span Q"):
        here(SITE, placement(), ORIGINALS, held(letter="Q"))


def test_nothing_can_be_pulled_where_nothing_shows():
    for kind, n in (("picture", 1), ("grid", 3), ("slides", 3), ("beside", 2), ("logo", 1)):
        own = {"D": m.Treatment(original=1, show="nothing", height=m.RatioHeight(w=2, h=1))}
        placed = placement(kind, n)
        parts = tuple(p.model_copy(update={"treatments": own}) for p in placed.parts)
        if kind not in ("picture", "logo"):
            parts = tuple(
                p.model_copy(update={"treatments": {"D": m.Treatment(show="nothing")}})
                for p in placed.parts
            )
        of = at(placed.model_copy(update={"parts": parts}))
        assert stage(of, ORIGINALS, 2).handles == ()


def test_a_width_outside_the_span_is_brought_to_its_nearest():
    assert at(placement(), 500, "C").spot.span.first == 1024


def test_of_many_items_the_last_one_is_worked_on_too():
    of = here(SITE, placement("grid", 300), ORIGINALS, held(part=299))
    assert len(of.spot.cells) == 40 and stage(of, ORIGINALS, 2).told
    assert of.placement.parts[of.part] is not None


def test_a_stage_says_what_is_around():
    found = stage(at(placement(width=m.ColumnsWidth(columns=3, gutter_px=60))), ORIGINALS, 2)
    assert found.container == (100, 1180) and found.columns[1] == (480, 800)
    assert found.sharp_to_px == 3000
    assert [h.id for h in found.handles][-1] == "height"
    assert found.told[:2] == ("320 × 160", "2:1")


def test_a_spot_whose_width_nobody_has_said_asks_for_it():
    found = stage(at(placement()), ORIGINALS, 2)
    assert [f.words for f in found.first] == [
        "the page",
        "the container",
        "half of it",
        "a third of it",
    ]
    wide = [f.width for f in found.first]
    assert wide[2] == m.ShareWidth(percent=50, of="container")
    assert stage(at(placement(width=wide[1])), ORIGINALS, 2).first == ()
