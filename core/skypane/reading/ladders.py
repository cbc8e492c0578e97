"""The ladders of a placement: what its visitors need, which widths serve them, and what that
costs."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np

from skypane.files.groups import Group, drawn_widths
from skypane.files.ladder import Bytes, Growth, best, cost, fitted
from skypane.files.renditions import Climbed, Files, climbed
from skypane.files.rows import by_size
from skypane.model import Rendition, Site
from skypane.reading.nouns import LadderReading, Rung, TakenAt, TakenRun, Tradeoff
from skypane.shown.nouns import Plan
from skypane.widths.runs import equal_runs


def ladder_readings(plan: Plan, files: Files, made: Mapping[str, int]) -> tuple[LadderReading, ...]:
    """One per group that is offered by width. `made` gives the bytes of those renditions that exist
    already, by key."""
    return tuple(_reading(plan, g, mine, made) for g, mine in files if g.by_width)


def _reading(
    plan: Plan, group: Group, files: Sequence[Rendition], made: Mapping[str, int]
) -> LadderReading:
    ladder = climbed(group, plan)
    measured, exponent, widths = _measured(plan.site, ladder, files, made)
    return LadderReading(
        part=group.part,
        letter=group.letters[-1],
        spans=group.letters,
        crop_px=group.crop.w,
        top_px=ladder.top,
        is_own=ladder.is_own,
        rungs=_rungs(plan.site, ladder, files, made),
        waste=round(ladder.taken.waste, 4),
        curve=tuple(
            Tradeoff(files=len(x.widths), widths=x.widths, waste=round(x.waste, 4))
            for x in ladder.best
        ),
        measured=measured,
        exponent=exponent,
        fitted=widths,
        taken=tuple(
            TakenAt(density=d, runs=_taken(group, ladder.taken.widths, d))
            for d in plan.site.densities
        ),
    )


def _share(site: Site, format_: str) -> float:
    """Which share of the audience takes a format; PNG stands for JPEG where there is
    transparency."""
    return float(getattr(site.takes, "jpeg" if format_ == "png" else format_))


def _rungs(
    site: Site, ladder: Climbed, files: Sequence[Rendition], made: Mapping[str, int]
) -> tuple[Rung, ...]:
    widths = ladder.taken.widths
    taken = dict.fromkeys(widths, 0.0)
    for need in ladder.needs:
        at = next((w for w in widths if w >= need.px), widths[-1])
        taken[at] += need.weight
    out = []
    for same in by_size(files):
        known = [(made.get(r.key), _share(site, r.format)) for r in same]
        total = sum(share for _, share in known)
        whole = total and all(size is not None for size, _ in known)
        mean = sum((size or 0) * share for size, share in known) / total if whole else None
        width = same[0].width_px
        size = None if mean is None else round(mean)
        out.append(Rung(width_px=width, share=round(taken.get(width, 0), 4), size_bytes=size))
    return tuple(out)


def _measured(
    site: Site, ladder: Climbed, files: Sequence[Rendition], made: Mapping[str, int]
) -> tuple[float | None, float | None, tuple[int, ...] | None]:
    """The waste by the growth that the made files have, its exponent for the newest format, and the
    best widths of as many files by it; None where too little is made."""
    growths: dict[str, Growth] = {}
    for f in dict.fromkeys(r.format for r in files):
        sizes = [(r.width_px, made[r.key]) for r in files if r.format == f and r.key in made]
        growth = fitted(sizes)
        if growth is None:
            return None, None, None
        growths[f] = growth
    if not growths:
        return None, None, None
    size = Bytes(growths, {f: _share(site, f) for f in growths})
    n = len(ladder.taken.widths)
    waste = cost(ladder.taken.widths, ladder.needs, size).waste
    widths = best(ladder.needs, n, size)[-1].widths
    return round(waste, 4), round(next(iter(growths.values())).e, 2), widths


def _taken(group: Group, widths: Sequence[int], density: float) -> tuple[TakenRun, ...]:
    out: list[TakenRun] = []
    for p in group.spans:
        needed = np.round(drawn_widths(p) * density, 4)
        index = np.minimum(np.searchsorted(widths, needed, side="left"), len(widths) - 1)
        for a, b in equal_runs(index):
            first, last = int(p.viewport_w[a]), int(p.viewport_w[b - 1])
            rung = widths[int(index[a])]
            before = out[-1] if out else None
            if before and before.width_px == rung and before.last + 1 == first:
                first = before.first
                out.pop()
            out.append(TakenRun(first=first, last=last, width_px=rung))
    return tuple(out)
