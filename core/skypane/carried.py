"""Placements and named frames after the breakpoints of their site have changed in number."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from skypane.geometry import WHOLE
from skypane.model import FrameValues, Placement, Site, Treatment, Treatments
from skypane.treatments import (
    ALL,
    FIELDS,
    NAMED,
    OF_FRAME,
    OF_ORIGINAL,
    Layer,
    Resolved,
    Said,
    chain,
    frame_treatments,
    handed_down,
    layout_values,
    own_values,
    resolve,
    said_by,
)
from skypane.widths.spans import spans_of


def respan(
    before: Site,
    after: Site,
    placement: Placement,
    areas: Mapping[int, tuple[str, ...]] | None = None,
) -> Placement:
    """The placement after the site's breakpoints have changed: every width keeps what it did, as
    far as spans allow. `after` has its named frames carried over already (see `respanned`).

    A new span takes what held at its last width; what equals the next wider span is handed down
    rather than own. `areas` are the names of each original's keep areas: what a span says that
    shows all of them beside a wider one that names some. A ladder stays with the span that ends
    where its own did, and goes where there is none.
    """
    if len(before.breakpoints) == len(after.breakpoints):
        return placement
    letters, areas = [s.letter for s in spans_of(before)], areas or {}
    taken = _taken_from(before, after)
    old, new = frame_treatments(before, placement), frame_treatments(after, placement)
    below = (Layer(NAMED, old), Layer(ALL, placement.common))
    common = _carried(taken, chain(letters, below), (new,), areas)
    ends = {s.last: s.letter for s in spans_of(after)}
    kept = {s.letter: ends[s.last] for s in spans_of(before) if s.last in ends}
    parts = []
    for part, held in zip(placement.parts, resolve(before, placement), strict=True):
        treatments = (
            _carried(taken, held, (new, common), areas)
            if part.of is None
            else _said_anew(taken, handed_down(letters, part.treatments))
        )
        ladders = {kept[k]: rungs for k, rungs in part.ladders.items() if k in kept}
        parts.append(part.model_copy(update={"treatments": treatments, "ladders": ladders}))
    values = layout_values(before, placement)
    layout: dict[str, dict[str, Any]] = {}
    wider: dict[str, Any] = {}
    for letter, was in taken.items():
        own = {k: v for k, v in values[was].values.items() if k not in wider or wider[k] != v}
        if own:
            layout[letter] = own
        wider = values[was].values
    changed = {"parts": tuple(parts), "common": common, "layout": layout}
    return placement.model_copy(update=changed)


def _said_anew(taken: Mapping[str, str], said: Mapping[str, Said]) -> Treatments:
    """What a variant says, over the part that it stands in for, where it said the same before."""
    treatments: Treatments = {}
    wider: dict[str, Any] = {}
    for letter, old in taken.items():
        values = said[old].values
        if values.get("original") != wider.get("original"):
            wider = {k: v for k, v in wider.items() if k not in OF_ORIGINAL}
        own = {k: v for k, v in values.items() if k not in wider or wider[k] != v}
        if own:
            treatments[letter] = Treatment(**own)
        wider = {**wider, **own}
    return treatments


def respanned(before: Site, after: Site) -> Site:
    """The site after its breakpoints have changed in number. Its named frames speak of the spans of
    the site before, and are carried over like the treatments of placements (see `respan`)."""
    if len(before.breakpoints) == len(after.breakpoints):
        return after
    letters, taken = [s.letter for s in spans_of(before)], _taken_from(before, after)
    frames = []
    for frame in after.frames:
        held = chain(letters, (Layer("", said_by(frame)),))
        carried = _carried(taken, held, (), {})
        spans = {k: FrameValues(**{f: getattr(t, f) for f in OF_FRAME}) for k, t in carried.items()}
        frames.append(frame.model_copy(update={"spans": spans}))
    return after.model_copy(update={"frames": tuple(frames)})


def _taken_from(before: Site, after: Site) -> dict[str, str]:
    """Per new letter, from the widest, the old span that it takes after."""
    old = spans_of(before)
    return {
        span.letter: next((s for s in old if s.last >= span.last), old[-1]).letter
        for span in reversed(spans_of(after))
    }


def _carried(
    taken: Mapping[str, str],
    held: Mapping[str, Resolved],
    below: Sequence[Treatments],
    areas: Mapping[int, tuple[str, ...]],
) -> Treatments:
    """Own treatments that come to what held, over those that lie below."""
    treatments: Treatments = {}
    wider: dict[str, Any] = {}
    for letter, old in taken.items():
        for layer in below:
            laid = own_values(layer[letter]) if letter in layer else {}
            if laid.get("original", wider.get("original")) != wider.get("original"):
                wider = {k: v for k, v in wider.items() if k not in OF_ORIGINAL}
            wider |= laid
        e, origin, _ = held[old]
        values = {f: getattr(e, f) for f in FIELDS if origin[f]}
        if wider.get("original") == e.original:  # else crop and areas are not handed down to it
            if e.crop is None and wider.get("crop") is not None:
                values["crop"] = WHOLE
            if e.keeps is None and wider.get("keeps") is not None and e.original is not None:
                values["keeps"] = areas.get(e.original, ())
        else:
            wider = {k: v for k, v in wider.items() if k not in OF_ORIGINAL}
        own = {
            f: v for f, v in values.items() if v is not None and (f not in wider or wider[f] != v)
        }
        if own:
            treatments[letter] = Treatment.model_validate(own)
        wider |= own
    return treatments
