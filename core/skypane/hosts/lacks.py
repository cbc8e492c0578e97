"""What a host cannot do for a placement, and the widths of screens at which that shows."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence

import numpy as np

from skypane.hosts.alone import can_stand_alone
from skypane.hosts.fares import InView
from skypane.markup.ways import COSTS
from skypane.model import Feature, Host
from skypane.model.condition import when_words
from skypane.shown.keeps import WHOLE_, fate_codes
from skypane.shown.nouns import PartPlan, Plan, ShownSpan, SpanPlan
from skypane.values import Noun
from skypane.widths.runs import equal_runs

#: Two frames that differ by no more than this are one, in CSS px.
SAME_PX = 1.0
#: Files are asked to be sharp at this density: few can see more (common practice).
SHARP_AT = 2.0


class Lack(Noun):
    """What a host cannot do, and at which viewport widths that shows, both ends included."""

    sentence: str
    runs: tuple[tuple[int, int], ...]


def lacks_of(
    placed: Plan, host: Host, views: Sequence[tuple[PartPlan, Sequence[InView]]] = ()
) -> tuple[Lack, ...]:
    """What a host lacks for a placement. `views` has the pictures in its views of which it is known
    how they fare there. What takes markup lacks nothing."""
    if host.takes == "markup":
        return ()
    everywhere = ((placed.site.narrowest, placed.site.widest),)
    found: list[Lack] = []
    if host.takes == "rules":
        found += [Lack(sentence=said, runs=everywhere) for said in COSTS]
    for part, there in views:
        named = f"{part.part.role.capitalize()}: " if part.part.role else ""
        found += [
            Lack(sentence=f"{named}{said}", runs=runs) for said, runs in _of_part(part, there)
        ]
    if host.takes != "rules":
        found += _under_conditions(placed)
    found += [Lack(sentence=said, runs=everywhere) for said in _of_all(placed, host)]
    return tuple(found)


def _of_all(placed: Plan, host: Host) -> Iterator[str]:
    placement, several = placed.placement, len(placed.written) > 1
    if not can_stand_alone(placed):
        yield (
            f"How a {placed.layout.kind} is laid out is left to the host: frames, spaces and what"
            " shows of each picture there are not known here."
        )
    elif several and host.takes == "rules":
        yield "What lies on the picture does not show: rules have one picture for one element."
    if placement.words is not None and not placement.words.empty:
        yield (
            "Its words are typed into fields of the host: whether they can be read there is not"
            " known here."
        )
    if host.takes != "rules":
        yield "Every screen of a view fetches the same file: there is no list of sizes and formats."


def _under_conditions(placed: Plan) -> Iterator[Lack]:
    """What shows under conditions, whichever picture it is in the place of."""
    found: dict[tuple[Feature, ...], list[tuple[int, int]]] = {}
    for part in placed.written:
        for other in placed.alternatives(part):
            spans = [p.span for p in other.spans if p.span.letter not in other.usual]
            found.setdefault(other.part.when, []).extend((s.first, s.last) for s in spans)
    for when, runs in found.items():
        if runs:
            said = f"What shows {when_words(when)} is the usual picture."
            yield Lack(sentence=said, runs=_joined(runs))


def _of_part(
    part: PartPlan, there: Sequence[InView]
) -> Iterator[tuple[str, tuple[tuple[int, int], ...]]]:
    """What is otherwise than it is wanted at some widths, worst first."""
    found: dict[str, list[tuple[int, int]]] = {}
    for one in there:
        for p in part.spans:
            first, last = max(p.span.first, one.first), min(p.span.last, one.last)
            if first <= last:
                for said, where in _differing(p, one, first, last):
                    runs = equal_runs(where)
                    found.setdefault(said, []).extend(
                        (first + a, first + b - 1) for a, b in runs if where[a]
                    )
    for said, mine in found.items():
        if mine:
            yield said, _joined(mine)


def _differing(p: SpanPlan, one: InView, first: int, last: int) -> Iterator[tuple[str, np.ndarray]]:
    """What differs at some widths of a span that are in a view."""
    q, everywhere = one.there, np.ones(last - first + 1, dtype=bool)
    mine, theirs = (slice(first - s.span.first, last - s.span.first + 1) for s in (p, q))
    if p.effective.show != q.effective.show:
        shows = {"picture": "The picture shows", "colour": "Its colour alone shows"}
        said = shows.get(q.effective.show, "Nothing shows")
        yield f"{said} where you have it otherwise.", everywhere
        return
    if p.effective.show == "nothing":
        return
    frames = np.zeros(len(everywhere), dtype=bool)
    for a, b in ((p.W, q.W), (p.H, q.H)):
        rows = a[:, mine], b[:, theirs]
        if rows[0].shape[0] != rows[1].shape[0]:
            rows = tuple(r[r.shape[0] // 2][None] for r in rows)
        frames |= (np.abs(rows[0] - rows[1]) > SAME_PX).any(axis=0)
    yield "Its frame is another one.", frames
    if not isinstance(p, ShownSpan) or not isinstance(q, ShownSpan):
        return
    if p.original.id != q.original.id:
        yield "It shows another picture than you have there.", everywhere
        return
    for area in p.keeps:
        whole = fate_codes(p, area)[0][mine] == WHOLE_
        yield (
            f"{area.name} is cut or too small.",
            whole & (fate_codes(q, area)[0][theirs] != WHOLE_),
        )
    if one.file is not None and p.original.has_px:
        needed = q.inside.drawn_w.max(axis=0)[theirs] * SHARP_AT
        could = p.inside.drawn_w.max(axis=0)[mine] * SHARP_AT <= p.picture.w + 1
        yield "The file is soft at 2x.", (one.file.width_px < needed - 1) & could


def _joined(runs: Iterable[tuple[int, int]]) -> tuple[tuple[int, int], ...]:
    """Runs of widths from the narrowest, those that touch as one."""
    out: list[tuple[int, int]] = []
    for first, last in sorted(runs):
        if out and first <= out[-1][1] + 1:
            out[-1] = (out[-1][0], max(out[-1][1], last))
        else:
            out.append((first, last))
    return tuple(out)
