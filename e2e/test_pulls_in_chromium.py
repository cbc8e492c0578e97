"""Edges that were pulled, in Chromium: they are where the hand was."""

from __future__ import annotations

import random

import pytest
from delivered import made, put
from pydantic import TypeAdapter
from skypane import model as m
from skypane.errors import InvalidPlan
from skypane.model import HeightRule, WidthRule
from skypane.pulls import Held, PulledTo, here, pulled, stage
from skypane.treatments import with_fields

ORIGINALS = {
    i: m.Original(id=i, name=f"p{i}.jpg", width_px=w, height_px=h, sha256=f"p{i}", alt=f"View {i}")
    for i, (w, h) in enumerate([(6000, 4000), (5472, 3648), (4000, 3000), (3024, 4032)], 1)
}
SITE = m.Site()
KINDS = ("picture", "banner", "grid", "slides", "beside", "logo")
#: The edges of the placement's own box, and of its pictures, from the page's left and its top.
EDGES = """() => {
  const box = document.querySelector('.nine').getBoundingClientRect();
  const of = (r) => [r.left, r.top - box.top, r.right, r.bottom - box.top];
  const found = document.querySelectorAll('.nine picture');
  const own = found.length ? [...found] : [document.querySelector('.nine')];
  return own.map((e) => of(e.getBoundingClientRect()));
}"""
RULES = {"width": TypeAdapter(WidthRule), "height": TypeAdapter(HeightRule)}
#: Handles whose edge is one of the first two pictures': which picture, and which of its edges.
PICTURES_OWN = {
    "height": (0, 3),
    "width.left": (0, 0),
    "width.right": (0, 2),
    "columns": (0, 2),
    "at_a_time": (0, 2),
    "gutter_px": (1, 0),
    "share_percent": (0, 2),
}


def frames(rng: random.Random) -> dict[str, object]:
    of = rng.choice(["page", "container"])
    n = rng.choice([2, 3, 4])
    bounds = {"greatest_px": rng.choice([700, 1100])} if rng.random() < 0.2 else {}
    width = rng.choice(
        [
            m.FullWidth(margin_px=rng.choice([0, 32]), **bounds),
            m.ShareWidth(percent=rng.choice([50, 75]), of=of, **bounds),
            m.FixedWidth(width_px=rng.choice([280, 310])),
            m.ColumnsWidth(columns=n, take=rng.randint(1, n), gutter_px=20, of=of, **bounds),
            m.PercentColumnsWidth(columns=n, padding_percent=1, of=of),
        ]
    )
    height = rng.choice(
        [
            m.RatioHeight(w=16, h=9),
            m.FixedHeight(height_px=300),
            m.ViewportHeight(percent=45),
            m.NaturalHeight(),
        ]
    )
    return {"width": width, "height": height, "stands": rng.choice(["start", "centre", "end"])}


def placement(kind: str, rng: random.Random) -> m.Placement:
    layout = {
        "grid": {"columns": rng.randint(2, 3), "gutter_px": 16},
        "slides": {"at_a_time": 2, "gutter_px": 12},
        "beside": {"share_percent": 55},
        "logo": {"padding_px": 0},
    }.get(kind, {})
    held = frames(rng)
    if kind in ("picture", "banner", "logo"):
        found = made(kind, ORIGINALS, {"D": layout} if layout else {}, shown=(1,))
        own = found.parts[0].model_copy(
            update={"treatments": {"D": m.Treatment(original=1, **held)}}
        )
        return found.with_part(0, own)
    common = {"D": m.Treatment(**held)}
    return made(kind, ORIGINALS, {"D": layout}, common=common)


def applied(placed: m.Placement, letter: str, found: object) -> m.Placement:
    """The placement with what a pull sets."""
    fields = {
        k: RULES[k].validate_python(v) if k in RULES else v for k, v in found.treatment.items()
    }
    own = {**placed.layout.get(letter, {}), **found.layout}
    placed = placed.model_copy(update={"layout": {**placed.layout, letter: own}})
    if fields and found.of_all:
        common = with_fields(placed.common, letter, fields)
        return placed.model_copy(update={"common": common})
    if fields:
        part = placed.parts[found.part]
        treatments = with_fields(part.treatments, letter, fields)
        placed = placed.with_part(found.part, part.model_copy(update={"treatments": treatments}))
    return placed


@pytest.mark.parametrize("kind", KINDS)
def test_a_pulled_edge_is_where_the_hand_was(browser, shelf, kind):
    """About 200 pulls of all kinds of rules; within 0.5 px, or at its bound."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    looked = 0
    for seed in range(14):
        rng = random.Random(f"{kind} {seed}")
        placed = placement(kind, rng)
        letter, width, high = rng.choice([("A", 390, 844), ("C", 1280, 800), ("D", 1920, 1080)])
        held = Held(letter=letter, width=width, height=high)
        try:
            of = here(SITE, placed, ORIGINALS, held)
            handles = [h for h in stage(of, ORIGINALS, 2).handles if h.id in PICTURES_OWN]
        except InvalidPlan:
            continue
        for handle in handles:
            if kind == "banner" and handle.id == "share_percent":
                continue
            start = handle.x0 if handle.axis == "x" else handle.y0
            to = max(handle.at_least, min(handle.at_most, start + rng.uniform(-120, 120)))
            pull = PulledTo(handle=handle.id, to=to, free=True)
            found = pulled(of, ORIGINALS, pull)
            try:
                _, url = put(shelf, applied(placed, letter, found), ORIGINALS, site=SITE)
            except InvalidPlan:  # elsewhere in the span it leaves no room
                continue
            page.set_viewport_size({"width": width, "height": high})
            page.goto(url)
            page.evaluate("document.fonts.ready")
            which, side = PICTURES_OWN[handle.id]
            if kind in ("grid", "slides", "beside") and handle.id == "width.right":
                continue  # the last one of a row is nowhere near where rows are short
            edges = page.evaluate(EDGES)
            assert edges[which][side] == pytest.approx(found.at, abs=0.6), (kind, seed, handle.id)
            looked += 1
            if handle.step < 1 and found.bound is None:
                assert found.at == pytest.approx(to, abs=0.5), (kind, seed, handle.id)
    assert looked >= 20
    page.close()
