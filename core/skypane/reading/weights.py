"""Which files screens take, and what they weigh: of one part, and of many together."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np

from skypane.files.renditions import Files, by_part
from skypane.files.taken import taken_files
from skypane.model import Site
from skypane.reading.nouns import Band
from skypane.shown.nouns import PartPlan, Plan
from skypane.shown.seen import seen
from skypane.widths.curves import Curve
from skypane.widths.frames import Floats
from skypane.widths.runs import Run, Verdict, equal_runs
from skypane.widths.spans import places_of


def no_weight(site: Site) -> Floats:
    """Nothing at every width of the site, (widths,). Where a file that is taken has not been made,
    its bytes are below nought."""
    return np.zeros(site.widest - site.narrowest + 1)


def with_weight(a: Floats, b: Floats) -> Floats:
    """Bytes of two together, width by width; not known where one of them is not."""
    both: Floats = np.where((a < 0) | (b < 0), -1.0, a + b)
    return both


def part_weights(
    site: Site, part: PartPlan, files: Files, made: Mapping[str, int]
) -> tuple[Floats, np.ndarray]:
    """Bytes of a part's picks at the greatest density, (widths,), and the widths that have any.
    `files` may be those of all parts."""
    out = no_weight(site)
    shows = np.zeros(len(out), dtype=bool)
    for p in part.shown:
        taken = taken_files(files, part.index, p, site.densities[-1])
        if taken is None:
            continue
        at = places_of(site, p.span)
        sizes = np.array([made.get(r.key, -1) for r in taken.files], dtype=float)
        out[at], shows[at] = sizes[taken.at], True
    return out, shows


def weight_bands(
    site: Site, part: PartPlan, files: Files, made: Mapping[str, int]
) -> tuple[Band, ...]:
    """Bytes of the pick at the greatest density, as far as files have been made. Shares are bytes
    over the budget."""
    found, shows = part_weights(site, part, files, made)
    if not shows.any():
        return ()
    id_, name = f"weight.{part.index}", f"Weight at {site.densities[-1]:g}x"
    return (weight_band(site, id_, name, np.where(shows, found, np.nan), site.budget_bytes),)


def all_weights(
    plan: Plan, parts: Sequence[PartPlan], files: Files, made: Mapping[str, int]
) -> Floats:
    """Bytes that a typical screen fetches of some parts together, (widths,)."""
    of = by_part(files)
    out = no_weight(plan.site)
    for part in parts:
        mine, _ = part_weights(plan.site, part, of.get(part.index, ()), made)
        out = with_weight(out, np.where(seen(plan, part), mine, 0.0))
    return out


def weight_band(site: Site, id_: str, name: str, sizes: Floats, budget: int) -> Band:
    """Bytes at every width as a band, without the widths where they are nan. Shares are bytes over
    `budget`."""
    runs, points = [], []
    for a, b in equal_runs(np.where(np.isnan(sizes), -2.0, sizes)):
        size = float(sizes[a])
        if np.isnan(size):
            continue
        ends = (site.narrowest + a, site.narrowest + b - 1)
        share = round(max(size, 0) / budget, 4)
        heavy: Verdict = "heavy" if size > budget else "light"
        runs.append(
            Run(
                first=ends[0],
                last=ends[1],
                verdict="unknown" if size < 0 else heavy,
                at_first=share,
                at_last=share,
                worst=share,
                worst_at=ends[0],
            )
        )
        points += [(w, max(size, 0)) for w in ends]
    return Band(
        kind="weight",
        id=id_,
        name=name,
        density=site.densities[-1],
        runs=tuple(runs),
        curve=Curve(points=tuple(points)),
    )
