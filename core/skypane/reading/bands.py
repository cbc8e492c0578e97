"""How areas, sharpness and weight of a part fare at every width."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from skypane.files.renditions import Files
from skypane.model import Rendition, Site
from skypane.reading.nouns import Band
from skypane.shown.keeps import FATES, fate_codes
from skypane.shown.plan import PartPlan, ShownSpan
from skypane.values import once
from skypane.widths.curves import Curve, Points, simplified
from skypane.widths.frames import Floats
from skypane.widths.runs import Run, Verdict, merged, runs_of


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
            name=name,
            density=None,
            runs=merged(found),
            curve=Curve(points=tuple(points[name])),
            needed=None,
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


def _picked(files: Files, part: int, letter: str, density: float) -> Rendition | None:
    """The rendition of the most modern format that a screen of this density takes: the least that
    suffices, else the greatest."""
    made = next((m for g, m in files if g.part == part and letter in g.letters), ())
    mine = sorted((r for r in made if r.format == made[0].format), key=lambda r: r.density)
    return next((r for r in mine if r.density >= density), mine[-1] if mine else None)


@once
def _drawn(p: ShownSpan) -> tuple[Floats, Points]:
    """Drawn width of the cut at the worst viewport height of every width, and as points."""
    drawn = p.drawn_cut_width.max(axis=0)
    return drawn, simplified(p.viewport_w, drawn, 0.02).points


@once
def _sharpness(p: ShownSpan, width_px: int, density: float) -> tuple[list[Run], Points]:
    """Runs of sharp and soft for a file of this width; points only where it is soft somewhere."""
    needed = _drawn(p)[0] * density
    share = np.minimum(width_px / needed, 9.99)
    # a file is sharp when it has the needed px to within a whole px
    sharp = width_px >= np.ceil(np.round(needed, 4)) - 1
    if sharp.all():
        return runs_of(p.viewport_w, np.broadcast_to("sharp", sharp.shape), share), ()
    runs = runs_of(p.viewport_w, np.where(sharp, "sharp", "soft"), share)
    return runs, simplified(p.viewport_w, share, 0.005).points


def sharp_bands(site: Site, part: PartPlan, files: Files) -> tuple[Band, ...]:
    """One band per density that is offered."""
    bands = []
    for density in site.densities:
        runs: list[Run] = []
        points: list[tuple[float, float]] = []
        asked: list[tuple[float, float]] = []
        for p in part.shown:
            file = _picked(files, part.index, p.span.letter, density)
            if file is None:
                continue
            mine, curve = _sharpness(p, file.width_px, density)
            runs += mine
            points += curve
            asked += [(w, round(px * density, 5)) for w, px in _drawn(p)[1]]
        if runs:
            bands.append(
                Band(
                    kind="sharp",
                    name=f"Sharp at {density:g}x",
                    density=density,
                    runs=merged(runs),
                    curve=Curve(points=tuple(points)),
                    needed=Curve(points=tuple(asked)),
                )
            )
    return tuple(bands)


def weight_bands(
    site: Site, part: PartPlan, files: Files, made: Mapping[str, int]
) -> tuple[Band, ...]:
    """Bytes of the pick at the greatest density, as far as files have been made. Shares are bytes
    over the budget."""
    density = site.densities[-1]
    runs: list[Run] = []
    points: list[tuple[float, float]] = []
    for p in part.spans:
        file = _picked(files, part.index, p.span.letter, density)
        if file is None:
            continue
        size = made.get(file.key)
        share = round(size / site.budget_bytes, 4) if size is not None else 0.0
        is_heavy = size is not None and size > site.budget_bytes
        verdict: Verdict = "unknown" if size is None else "heavy" if is_heavy else "light"
        first, last = p.span.first, p.span.last
        runs.append(
            Run(
                first=first,
                last=last,
                verdict=verdict,
                at_first=share,
                at_last=share,
                worst=share,
                worst_at=first,
            )
        )
        points += [(first, size or 0), (last, size or 0)]
    if not runs:
        return ()
    return (
        Band(
            kind="weight",
            name=f"Weight at {density:g}x",
            density=density,
            runs=tuple(runs),
            curve=Curve(points=tuple(points)),
            needed=None,
        ),
    )
