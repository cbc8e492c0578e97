"""How areas, sharpness and weight fare at every width."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from skypane.files.renditions import Group
from skypane.model import Rendition, Site
from skypane.reading.nouns import Band
from skypane.shown.keeps import fates
from skypane.shown.plan import SpanPlan, drawn_cut_width
from skypane.widths.curves import Curve, simplified
from skypane.widths.runs import Run, Verdict, merged, runs_of


def area_bands(plans: tuple[SpanPlan, ...]) -> tuple[Band, ...]:
    """One band per keep area of the originals in use, in the order of importance within each
    original."""
    shown = [p for p in plans if p.original is not None and p.shown is not None]
    matter = {a.name for p in shown for a in p.keeps}
    runs: dict[str, list[Run]] = {
        a.name: [] for p in shown if p.original for a in p.original.keeps if a.name in matter
    }
    points: dict[str, list[tuple[float, float]]] = {}
    for p in shown:
        for area in p.keeps:
            verdicts, share = fates(p, area)
            runs[area.name].extend(runs_of(p.viewport_w, verdicts, share))
            points.setdefault(area.name, []).extend(simplified(p.viewport_w, share, 0.005).points)
    return tuple(
        Band(kind="area", name=name, runs=merged(found), curve=Curve(points=tuple(points[name])))
        for name, found in runs.items()
    )


def _of_group(
    files: tuple[tuple[Group, tuple[Rendition, ...]], ...], letter: str
) -> tuple[Rendition, ...]:
    return next((renditions for g, renditions in files if letter in g.letters), ())


def _picked_width(renditions_: tuple[Rendition, ...], density: float) -> Rendition | None:
    """The rendition of the most modern format that a screen of this density takes: the least that
    suffices, else the greatest."""
    if not renditions_:
        return None
    mine = sorted(
        (r for r in renditions_ if r.format == renditions_[0].format), key=lambda r: r.density
    )
    return next((r for r in mine if r.density >= density), mine[-1])


def sharp_bands(
    site: Site, plans: tuple[SpanPlan, ...], files: tuple[tuple[Group, tuple[Rendition, ...]], ...]
) -> tuple[Band, ...]:
    bands = []
    drawn = {p.span.letter: drawn_cut_width(p).max(axis=0) for p in plans if p.shown is not None}
    thin = {
        p.span.letter: simplified(p.viewport_w, drawn[p.span.letter], 0.02)
        for p in plans
        if p.shown is not None
    }
    for density in site.densities:
        runs: list[Run] = []
        points: list[tuple[float, float]] = []
        asked: list[tuple[float, float]] = []
        for p in plans:
            file = _picked_width(_of_group(files, p.span.letter), density)
            if file is None or p.shown is None:
                continue
            needed = drawn[p.span.letter] * density
            share = np.minimum(file.width_px / needed, 9.99)
            asked += [(w, round(px * density, 5)) for w, px in thin[p.span.letter].points]
            # a file is sharp when it has the needed px to within a whole px
            sharp = file.width_px >= np.ceil(np.round(needed, 4)) - 1
            if sharp.all():
                runs += runs_of(p.viewport_w, np.broadcast_to("sharp", sharp.shape), share)
                continue
            runs += runs_of(p.viewport_w, np.where(sharp, "sharp", "soft"), share)
            points += simplified(p.viewport_w, share, 0.005).points
        if runs:
            name = f"Sharp at {density:g}x"
            curve, needs = Curve(points=tuple(points)), Curve(points=tuple(asked))
            bands.append(
                Band(
                    kind="sharp",
                    name=name,
                    density=density,
                    runs=merged(runs),
                    curve=curve,
                    needed=needs,
                )
            )
    return tuple(bands)


def weight_bands(
    site: Site,
    plans: tuple[SpanPlan, ...],
    files: tuple[tuple[Group, tuple[Rendition, ...]], ...],
    made: Mapping[str, int],
) -> tuple[Band, ...]:
    """Bytes of the pick at the greatest density, as far as files have been made. Shares are bytes
    over the budget."""
    density = site.densities[-1]
    runs: list[Run] = []
    points: list[tuple[float, float]] = []
    for p in plans:
        file = _picked_width(_of_group(files, p.span.letter), density)
        if file is None:
            continue
        size = made.get(file.key)
        share = round(size / site.budget_bytes, 4) if size is not None else 0.0
        verdict: Verdict = (
            "unknown" if size is None else "heavy" if size > site.budget_bytes else "light"
        )
        runs.append(
            Run(
                first=p.span.first,
                last=p.span.last,
                verdict=verdict,
                at_first=share,
                at_last=share,
                worst=share,
                worst_at=p.span.first,
            )
        )
        points += [(p.span.first, size or 0), (p.span.last, size or 0)]
    if not runs:
        return ()
    return (
        Band(
            kind="weight",
            name=f"Weight at {density:g}x",
            density=density,
            runs=tuple(runs),
            curve=Curve(points=tuple(points)),
        ),
    )
