"""How areas, sharpness and the frame of a part fare at every width."""

from __future__ import annotations

import numpy as np

from skypane.files.groups import drawn_widths
from skypane.files.renditions import Files
from skypane.files.rows import stem_of
from skypane.files.taken import Taken, taken_files
from skypane.model import MOST_PX, Placement, Site
from skypane.numerals import whole_px_all
from skypane.reading.nouns import Band, FileRun
from skypane.shown.clear import COVERED
from skypane.shown.in_the_way import covered_by_kind
from skypane.shown.keeps import FATES, MUCH_IN_VIEW, fate_codes, in_view
from skypane.shown.nouns import PartPlan, Plan, ShownSpan, SpanPlan
from skypane.shown.sets import Siblings, shown_of_set
from skypane.values import once
from skypane.widths.curves import Curve, Points, simplified
from skypane.widths.frames import Floats
from skypane.widths.runs import Run, equal_runs, merged, runs_of
from skypane.widths.spans import spans_of


def area_bands(part: PartPlan) -> tuple[Band, ...]:
    """One band per keep area of the originals in use, in the order of importance within each
    original."""
    matter = {a.name for p in part.shown for a in p.keeps}
    runs: dict[str, list[Run]] = {
        a.name: [] for p in part.shown for a in p.original.keeps if a.name in matter
    }
    points: dict[str, list[tuple[float, float]]] = {}
    for p in part.shown:
        for name, (mine, curve) in _area_runs(p).items():
            runs[name] += mine
            points.setdefault(name, []).extend(curve)
    return tuple(
        Band(
            kind="area",
            id=f"area.{part.index}.{name}",
            name=name,
            runs=merged(found),
            curve=Curve(points=tuple(points[name])),
        )
        for name, found in runs.items()
    )


@once
def _area_runs(p: ShownSpan) -> dict[str, tuple[list[Run], Points]]:
    """Per area of one span its runs, and its share in view as points."""
    out = {}
    for area in p.keeps:
        codes, share = fate_codes(p, area)
        runs = runs_of(p.viewport_w, codes, share, FATES)
        out[area.name] = (runs, simplified(p.viewport_w, share, 0.005).points)
    return out


@once
def _drawn(p: ShownSpan) -> tuple[Floats, Points]:
    """Drawn width of the cut at the worst viewport height of every width, and as points."""
    drawn = drawn_widths(p)
    return drawn, simplified(p.viewport_w, drawn, 0.02).points


@once
def _sharpness(
    p: ShownSpan, widths: tuple[int, ...], index: bytes, density: float
) -> tuple[list[Run], Points]:
    """Runs of sharp and soft for the files taken; points only where they are soft somewhere."""
    needed = _drawn(p)[0] * density
    width_px = np.array(widths)[np.frombuffer(index, np.int64)]
    share = np.minimum(width_px / needed, 9.99)
    # a file is sharp when it has the needed px to within a whole px
    sharp = width_px >= whole_px_all(needed) - 1
    if sharp.all():
        return runs_of(p.viewport_w, np.broadcast_to("sharp", sharp.shape), share), ()
    runs = runs_of(p.viewport_w, np.where(sharp, "sharp", "soft"), share)
    return runs, simplified(p.viewport_w, share, 0.005).points


def sharp_bands(
    site: Site, part: PartPlan, files: Files, written: PartPlan | None = None
) -> tuple[Band, ...]:
    """One band per density that is offered. `written` is the part as the markup was written for it,
    which says what is taken."""
    bands = []
    for density in site.densities:
        runs: list[Run] = []
        points: list[tuple[float, float]] = []
        asked: list[tuple[float, float]] = []
        files_taken: list[FileRun] = []
        for p in part.shown:
            asks = (written or part).of(p.span.letter)
            if not isinstance(asks, ShownSpan):
                continue
            taken = taken_files(files, part.index, asks, density)
            if taken is None:
                continue
            # what has no px of its own is sharp at any size
            has_px = p.original.has_px
            widths = tuple(r.width_px if has_px else MOST_PX for r in taken.files)
            mine, curve = _sharpness(p, widths, taken.at.tobytes(), density)
            runs += mine
            files_taken += _files_taken(p, taken)
            points += curve
            asked += [(w, round(px * density, 5)) for w, px in _drawn(p)[1]]
        if runs:
            bands.append(
                Band(
                    kind="sharp",
                    id=f"sharp.{part.index}.{density:g}",
                    wrong="soft",
                    figured="soft, {times}",
                    name=f"Sharp at {density:g}x",
                    density=density,
                    runs=merged(runs),
                    curve=Curve(points=tuple(points)),
                    needed=Curve(points=tuple(asked)),
                    taken=tuple(files_taken),
                )
            )
    return tuple(bands)


def _files_taken(p: ShownSpan, taken: Taken) -> list[FileRun]:
    return [
        FileRun(
            first=int(p.viewport_w[a]),
            last=int(p.viewport_w[b - 1]),
            stem=stem_of(taken.files[int(taken.at[a])]),
            name=taken.files[int(taken.at[a])].name,
            width_px=taken.files[int(taken.at[a])].width_px,
        )
        for a, b in equal_runs(taken.at)
    ]


def seen_band(part: PartPlan) -> tuple[Band, ...]:
    """How much of a picture is in view where it has no keep area: nothing says whether what matters
    is. Only where much is out of view somewhere."""
    runs: list[Run] = []
    points: list[tuple[float, float]] = []
    for p in part.shown:
        if p.original.keeps:
            continue
        share = in_view(p)
        runs += runs_of(p.viewport_w, np.where(share < MUCH_IN_VIEW, "trimmed", "whole"), share)
        points += simplified(p.viewport_w, share, 0.005).points
    if all(r.verdict == "whole" for r in runs):
        return ()
    return (
        Band(
            kind="seen",
            id=f"seen.{part.index}",
            name="In view",
            runs=merged(runs),
            curve=Curve(points=tuple(points)),
            wrong="out of view",
            figured="{out} out of view",
        ),
    )


def own_lying_band(plan: Plan, part: PartPlan) -> tuple[Band, ...]:
    """Whether what the kind itself lays on its pictures lies clear of keep areas, as controls of
    slides do: the share of the worst covered one that is free."""
    if not plan.layout.lies_on:
        return ()
    runs: list[Run] = []
    points: list[tuple[float, float]] = []
    for p in part.shown:
        found = covered_by_kind(part, p, plan)
        free = np.ones(len(p.viewport_w))
        for share in found.values():
            free = np.minimum(free, 1 - share)
        runs += runs_of(p.viewport_w, np.where(free < 1 - COVERED, "covered", "clear"), free)
        points += simplified(p.viewport_w, free, 0.005).points
    if all(r.verdict == "clear" for r in runs):
        return ()
    lies_on = plan.layout.lies_on
    return (
        Band(
            kind="clear",
            id=f"clear.{part.index}",
            name=f"{lies_on} clear of areas",
            runs=merged(runs),
            curve=Curve(points=tuple(points)),
            wrong=f"{lies_on.lower()} in the way",
        ),
    )


def frame_band(part: PartPlan) -> tuple[Band, ...]:
    """The width of the frame as a curve, in CSS px; `peak` is where it is widest."""
    spans = [p for p in part.spans if p.effective.show != "nothing"]
    if not spans:
        return ()
    points = tuple(point for p in spans for point in frame_width(p).points)
    tops = [(float(p.W[0].max()), -int(p.viewport_w[int(p.W[0].argmax())])) for p in spans]
    width, at = max((round(w, 3), at) for w, at in tops)
    return (
        Band(
            kind="frame",
            id=f"frame.{part.index}",
            name=spans[0].layout.width_word,
            runs=(),
            curve=Curve(points=points),
            peak=(-at, width),
        ),
    )


@once
def frame_width(p: SpanPlan) -> Curve:
    """The frame's width over one span, exact where it bends."""
    return simplified(p.viewport_w, p.W[0], 0.02)


def one_of_band(site: Site, placement: Placement, siblings: Siblings) -> Band | None:
    """Whether just one placement of a set shows at each width; None for one that is in no set."""
    found = shown_of_set(site, placement, siblings)
    if found is None:
        return None
    spans = spans_of(site)
    runs = [
        Run(
            first=s.first,
            last=s.last,
            verdict="one" if n == 1 else "several" if n else "none",
            at_first=n,
            at_last=n,
            worst=n,
            worst_at=s.first,
        )
        for s, n in zip(spans, (len(found[s.letter]) for s in spans), strict=True)
    ]
    return Band(
        kind="one",
        id="one",
        name=f"One of {placement.one_of}",
        runs=merged(runs),
        curve=Curve(points=tuple((w, r.worst) for r in runs for w in (r.first, r.last))),
        wrong="{verdict} show",
    )
