"""The cuts of a logo at a glance: down to which width each can be read, which one every width calls
for, and what it takes to show just that."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from skypane.galleries.logo import least_width
from skypane.kinds.logo.cuts import Called, called_for, cut_of_span
from skypane.kinds.logo.layout import values_of
from skypane.kinds.logo.nouns import CutReading, CutRun, LogoReading
from skypane.model import Original
from skypane.reading.nouns import Band
from skypane.reading.own import reads
from skypane.shown.lettering import drawn_cut
from skypane.shown.nouns import Plan, ShownSpan
from skypane.shown.seen import holds, seen
from skypane.shown.under import Pixels
from skypane.widths.curves import Curve, simplified
from skypane.widths.runs import Run, equal_runs, merged, runs_of
from skypane.widths.spans import places_of


@reads("logo")
def logo_reading(plan: Plan, originals: Mapping[int, Original], pixels: Pixels) -> LogoReading:
    said = values_of(plan.spots[-1]).cuts
    called = called_for(plan, originals)
    known = [c for c in said if c.original in originals]
    runs = () if called is None else _runs(called)
    spans = _spans(plan, called, [c.original for c in known]) if called else {}
    turned = [a for a in plan.alternatives(plan.parts[0]) if "portrait" in a.part.when]
    upright = {p.original.id for a in turned for p in a.shown}
    return LogoReading(
        cuts=tuple(
            CutReading(
                original=c.original,
                lettering_percent=c.lettering_percent,
                least_px=round(called.least[i], 2) if called else 0.0,
                shows=tuple((r.first, r.last) for r in runs if r.cut == i),
                in_portrait=c.original in upright,
            )
            for i, c in enumerate(known)
        ),
        called_for=runs,
        breaks=tuple(r.last for r in runs[:-1] if not _serves_as_post(plan, r.last)),
        spans=spans,
        wants=_wants(plan, spans),
        edges={c.original: edge for c in known if (edge := _edge(originals[c.original], pixels))},
        portrait=_portrait(plan),
        bands=_bands(plan),
    )


def _portrait(plan: Plan) -> tuple[tuple[int, int], ...]:
    turned, first = holds(plan.site, ("portrait",)), plan.site.narrowest
    return tuple((first + a, first + b - 1) for a, b in equal_runs(turned) if turned[a])


def _runs(called: Called) -> tuple[CutRun, ...]:
    v = called.widths
    return tuple(
        CutRun(first=int(v[a]), last=int(v[b - 1]), cut=int(called.cuts[a]))
        for a, b in equal_runs(called.cuts)
    )


#: A breakpoint up to this much wider serves as one: between the two there would be a sliver of a
#: span, and the cut before can be read there too.
SLIVER = 1.05


def _serves_as_post(plan: Plan, last: int) -> bool:
    return any(last <= s.last <= last * SLIVER for s in plan.spans[:-1])


def _wants(plan: Plan, spans: Mapping[str, int]) -> dict[str, int]:
    """What spans have to set, from the widest on, so that each shows its cut: also those that would
    be handed down another one by what a wider span sets then."""
    treatments, handed = plan.parts[0].part.treatments, None
    out: dict[str, int] = {}
    for span in reversed(plan.spans):
        own = treatments[span.letter].original if span.letter in treatments else None
        shows = handed if own is None else own
        wanted = spans.get(span.letter, shows)
        if wanted is not None and wanted != shows:
            out[span.letter] = wanted
        handed = wanted
    return out


def _spans(plan: Plan, called: Called, ids: list[int]) -> dict[str, int]:
    """Per span the fullest cut that can be read at all its widths."""
    out = {}
    for span in plan.spans:
        inside = (called.widths >= span.first) & (called.widths <= span.last)
        out[span.letter] = ids[int(called.cuts[inside].max())]
    return out


def _bands(plan: Plan) -> tuple[Band, ...]:
    """Whether the lettering of what typical viewports see can be read: its height as a share of the
    least."""
    runs: list[Run] = []
    points: list[tuple[float, float]] = []
    seen_of = [seen(plan, part) for part in plan.parts]
    for at, spot in enumerate(plan.spots):
        widths = spot.viewports.widths
        share = np.full(len(widths), np.nan)
        for part, of in zip(plan.parts, seen_of, strict=True):
            p = part.spans[at]
            cut = cut_of_span(p) if isinstance(p, ShownSpan) else None
            if cut is None or not isinstance(p, ShownSpan):
                continue
            least = least_width(cut, values_of(spot).least_px)
            read = drawn_cut(p) / least if least else np.ones(len(widths))
            here = of[places_of(plan.site, spot.span)]
            share = np.where(here, np.minimum(read, 9.99), share)
        for a, b in equal_runs(np.isnan(share)):
            if np.isnan(share[a]):
                continue
            v, mine = widths[a:b], share[a:b]
            runs += runs_of(v, np.where(mine >= 1 - 1e-6, "readable", "faint"), mine)
            points += simplified(v, mine, 0.01).points
    if not runs:
        return ()
    band = Band(
        kind="lettering",
        id="lettering",
        name="Lettering readable",
        wrong="lettering too small",
        runs=merged(runs),
        curve=Curve(points=tuple(points)),
    )
    return (band,)


def _edge(original: Original, pixels: Pixels) -> str | None:
    """The colour of a cut's own edge where all of it has one and none is see-through."""
    found = pixels(original)
    if found is None or found.alpha:
        return None
    px = found.by_width[0]
    edge = np.concatenate([px[0], px[-1], px[:, 0], px[:, -1]])[:, :3].astype(float)
    middle = np.median(edge, axis=0)
    if np.abs(edge - middle).max(axis=1).mean() > 8:
        return None
    return "#" + "".join(f"{round(c):02x}" for c in middle)
