"""What is taken along from an earlier plan of many items is what it would be without one: whatever
has been done to a placement, its reading is that of a process that has never seen it before."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from skypane import model as m
from skypane.errors import InvalidPlan
from skypane.layouts import begun
from skypane.reading import read, read_moving
from skypane.shown.store import Store

pytestmark = pytest.mark.slow

SITE = m.Site()
SIZES = ((6000, 4000), (4032, 3024), (3024, 4032), (9000, 3000), (500, 10000))


def original(i, focal=(0.5, 0.5)):
    width, height = SIZES[i % len(SIZES)]
    areas = (m.Area(name="Stack", rect=m.Rect(x=0.1 + i / 20, y=0.2, w=0.3, h=0.6)),)
    return m.Original(
        id=i,
        name=f"{i}-岬.jpg",
        width_px=width,
        height_px=height,
        sha256=str(i),
        alt="A stack",
        areas=areas if i % 2 else (),
        focal=focal,
    )


def many(kind):
    parts = tuple(
        m.Part(treatments={"D": m.Treatment(original=i)}, item=m.Item(title=f"Stack {i}"))
        for i in range(5)
    )
    return begun(kind, SITE, m.Placement(name="Nine things", parts=parts))


# -- what a designer does to part `i`, in the span `key`, by `x` ------------------------------


def treated(p, i, key, **values):
    i %= len(p.parts)
    own = p.parts[i].treatments
    said = own.get(key, m.Treatment()).model_copy(update=values)
    return p.with_part(i, p.parts[i].model_copy(update={"treatments": {**own, key: said}}))


def aims(p, i, key, x):
    return treated(p, i, key, aim=m.FixedAim(x=x, y=0.5))


def exchanges(p, i, key, x):
    return treated(p, i, key, original=int(4 * x))


def drops(p, i, key, x):
    return treated(p, i, key, show="nothing" if x < 0.7 else "picture")


def shows_whole(p, i, key, x):
    return treated(p, i, key, fit="contain", background="#123456")


def crops(p, i, key, x):
    return treated(p, i, key, crop=m.Rect(x=x / 2, y=0.1, w=0.5, h=0.8))


def captions(p, i, key, x):
    i %= len(p.parts)
    title = ("", "Tern", "風", "A longer word than that")[int(3.9 * x)]
    item = m.Item(title=title, wide=x > 0.5)
    return p.with_part(i, p.parts[i].model_copy(update={"item": item}))


def moves(p, i, key, x):
    return p.model_copy(update={"parts": (*p.parts[i:], *p.parts[:i])})


def adds(p, i, key, x):
    return p.model_copy(update={"parts": (*p.parts, p.parts[i % len(p.parts)])})


def removes(p, i, key, x):
    return p.model_copy(update={"parts": p.parts[1:] or p.parts})


def gives_all_a_ratio(p, i, key, x):
    held = m.Treatment(height=m.RatioHeight(w=1 + i, h=2))
    return p.model_copy(update={"common": {**p.common, key: held}})


def gives_gutters(p, i, key, x):
    said = {**p.layout.get(key, {}), "gutter_px": round(40 * x, 1)}
    return p.model_copy(update={"layout": {**p.layout, key: said}})


EDITS = (
    aims,
    exchanges,
    drops,
    shows_whole,
    crops,
    captions,
    moves,
    adds,
    removes,
    gives_all_a_ratio,
    gives_gutters,
)
edits_made = st.lists(
    st.tuples(st.sampled_from(EDITS), st.integers(0, 4), st.sampled_from("ABCD"), st.floats(0, 1)),
    min_size=1,
    max_size=4,
)


# -- with and without what is known -----------------------------------------------------------


def both(placement, originals, store):
    """All of the reading and what moves, or the sentence that refuses them."""
    asked = {"chosen": (0, "B"), "store": store}
    try:
        return (
            read(SITE, placement, originals, **asked),
            read_moving(SITE, placement, originals, **asked),
        )
    except InvalidPlan as refused:
        return str(refused), refused.field


ARRANGED = {
    "cells": ("grid", {"arranged": "cells"}),
    "justified": ("grid", {"arranged": "justified"}),
    "masonry": ("grid", {"arranged": "masonry"}),
    "rows": ("grid", {"arranged": "rows"}),
    "turned": ("grid", {"arranged": "slides"}),
    "hidden": ("grid", {"arranged": "hidden"}),
    "slides": ("slides", {}),
    "beside": ("beside", {}),
}


@pytest.mark.parametrize("arranged_as", ARRANGED)
@settings(max_examples=12)
@given(edits=edits_made, focal=st.floats(0, 1))
def test_a_reading_is_that_of_a_process_that_knows_nothing(arranged_as, edits, focal):
    kind, values = ARRANGED[arranged_as]
    placement = many(kind)
    placement = placement.model_copy(update={"layout": {**placement.layout, "B": values}})
    originals = {i: original(i) for i in range(5)}
    store = Store()
    both(placement, originals, store)
    steps = [placement]
    for edited, *by in edits:
        steps.append(edited(steps[-1], *by))
    # and all of it undone at last
    for n, placement in enumerate((*steps[1:], steps[0])):
        if n == 1:  # somebody marks a picture otherwise meanwhile
            originals = {**originals, 2: original(2, focal=(focal, 0.5))}
        assert both(placement, originals, store) == both(placement, originals, Store())
