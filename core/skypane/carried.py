"""Placements, named frames and pages after the breakpoints of their site have changed in number."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from skypane.geometry import WHOLE
from skypane.handing_down import Handed, Layer, Values, handed_down, to_set
from skypane.model import (
    FrameValues,
    PageLayout,
    PageValues,
    Placement,
    Site,
    Treatment,
    Treatments,
)
from skypane.paged import page_values
from skypane.treatments import (
    frame_treatments,
    kind_layer,
    layers_below,
    part_layer,
    set_by,
    set_in,
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

    def back(field: str, values: Values) -> Any:
        """All of the original, and all of its areas."""
        if field == "crop":
            return WHOLE
        return areas.get(values["original"], ()) if "original" in values else None

    below = layers_below(before, placement)
    frame = set_in(frame_treatments(after, placement))
    common = to_set(_taken(taken, handed_down(letters, *below)), frame, taken_back=back)
    ends = {s.last: s.letter for s in spans_of(after)}
    kept = {s.letter: ends[s.last] for s in spans_of(before) if s.last in ends}
    parts = []
    for part in placement.parts:
        # a variant lies over the part in whose place it stands, as it did
        over, lower = (below, (frame, common)) if part.of is None else ((), ())
        held = handed_down(letters, *over, part_layer(part))
        treatments = to_set(_taken(taken, held), *lower, taken_back=back)
        ladders = {kept[k]: rungs for k, rungs in part.ladders.items() if k in kept}
        parts.append(
            part.model_copy(update={"treatments": _treatments(treatments), "ladders": ladders})
        )
    changed = {
        "parts": tuple(parts),
        "common": _treatments(common),
        "layout": _layout(letters, taken, placement.layout),
        "layout_under": tuple(
            u.model_copy(update={"layout": _layout(letters, taken, u.layout)})
            for u in placement.layout_under
        ),
    }
    return placement.model_copy(update=changed)


def _treatments(values: Mapping[str, Values]) -> Treatments:
    return {letter: Treatment(**own) for letter, own in values.items()}


def _layout(
    letters: list[str], taken: Mapping[str, str], layout: Mapping[str, Mapping[str, Any]]
) -> dict[str, dict[str, Any]]:
    """Values of a kind, carried over."""
    return to_set(_taken(taken, handed_down(letters, kind_layer(layout))))


def _taken(taken: Mapping[str, str], held: Mapping[str, Handed]) -> dict[str, Handed]:
    """What held in the spans before, by the letters of those that take after them."""
    return {letter: held[was] for letter, was in taken.items()}


def respanned(before: Site, after: Site) -> Site:
    """The site after its breakpoints have changed in number. Its named frames speak of the spans of
    the site before, and are carried over like the treatments of placements (see `respan`)."""
    if len(before.breakpoints) == len(after.breakpoints):
        return after
    letters, taken = [s.letter for s in spans_of(before)], _taken_from(before, after)
    frames = []
    for frame in after.frames:
        held = handed_down(letters, Layer("frame", set_in(set_by(frame))))
        spans = to_set(_taken(taken, held))
        carried = {letter: FrameValues(**own) for letter, own in spans.items()}
        frames.append(frame.model_copy(update={"spans": carried}))
    return after.model_copy(update={"frames": tuple(frames)})


def page_respanned(before: Site, after: Site, layout: PageLayout) -> PageLayout:
    """The layout of a page after breakpoints have changed in number: a new span takes what held at
    its last width, and sets only what the next wider one does not."""
    if len(before.breakpoints) == len(after.breakpoints) or not layout:
        return layout
    held = _taken(_taken_from(before, after), page_values(before, layout))
    return {letter: PageValues(**own) for letter, own in to_set(held).items()}


def _taken_from(before: Site, after: Site) -> dict[str, str]:
    """Per new letter, from the widest, the old span that it takes after."""
    old = spans_of(before)
    return {
        span.letter: next((s for s in old if s.last >= span.last), old[-1]).letter
        for span in reversed(spans_of(after))
    }
