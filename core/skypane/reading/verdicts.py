"""One verdict for every width: the worst of all that is known of a placement there."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from skypane.model import Feature, Finding, Site
from skypane.reading.nouns import Band, ItemsReading, VerdictRun, Verdicts
from skypane.shown.nouns import PartPlan, Plan
from skypane.shown.seen import holds, seen
from skypane.widths.runs import Run, Verdict, equal_runs, within

#: What is wrong, from the worst on. What is lost cannot be seen at all; what is soft can.
ORDER: tuple[Verdict, ...] = (
    "none",
    "several",
    "lost",
    "cut",
    "faint",
    "covered",
    "grows",
    "small",
    "soft",
    "trimmed",
    "found",
)
_RANK = {verdict: len(ORDER) - i for i, verdict in enumerate(ORDER)}


class Known(NamedTuple):
    """What is known of a placement: the `bands` of each part by its place, or of many items those
    of the chosen one, which speak beside the band of all; the bands of the `whole`; and what has
    been found. `features` are those that screens ask for. `missing`: the placement with its
    pictures, and what is seen in their place while they are not there."""

    bands: Mapping[int, Sequence[Band]]
    whole: Sequence[Band]
    items: ItemsReading | None = None
    findings: Sequence[Finding] = ()
    features: tuple[Feature, ...] = ()
    missing: tuple[Plan, str] | None = None


class _Wrong(NamedTuple):
    """Something that is wrong from one width to another."""

    first: int
    last: int
    verdict: Verdict
    band: Band | None
    word: str


def verdicts(plan: Plan, known: Known) -> tuple[Verdicts, ...]:
    """Per density that is offered the verdict of every width, as typical viewports see it. Without
    a band of sharpness nothing is said of it."""
    out = []
    for density in plan.site.densities:
        told = list(_judged(plan, known, density))
        wrong = [w for band, runs in told for w in _wrong_of(band, runs, known.items)]
        wrong += [w for f in known.findings for w in _found(plan.site, f, known.features)]
        out.append(Verdicts(density=density, runs=tuple(_runs(plan, told, wrong, known))))
    return tuple(out)


def _judged(plan: Plan, known: Known, density: float) -> Iterator[tuple[Band, Sequence[Run]]]:
    """Bands that count, and their runs at widths at which what they speak of is seen: where another
    picture stands in the place of a part, what is wrong with the part is not seen."""
    many = known.items is not None and len(known.items.items) > 1
    for index, bands in known.bands.items():
        part = plan.parts[index]
        sees = seen_runs(plan, part, known.features)
        for band in bands:
            if band.density not in (None, density) or band.kind in ("weight", "frame"):
                continue
            # of many items all are judged together
            if not (many and band.kind == "area"):
                yield band, band.runs if sees is None else list(within(band.runs, sees))
    for band in known.whole:
        yield band, band.runs


def seen_runs(
    plan: Plan, part: PartPlan, features: tuple[Feature, ...] = ()
) -> list[tuple[int, int]] | None:
    """The widths at which a part is what typical viewports see; None for all of them."""
    if part.part.of is None and not plan.alternatives(part):
        return None
    return _where(plan.site, seen(plan, part, features))


def _where(site: Site, here: np.ndarray) -> list[tuple[int, int]]:
    """Runs of widths at which something holds."""
    first = site.narrowest
    return [(first + a, first + b - 1) for a, b in equal_runs(here) if here[a]]


def _wrong_of(band: Band, runs: Iterable[Run], items: ItemsReading | None) -> Iterator[_Wrong]:
    for run in runs:
        if run.verdict not in _RANK:
            continue
        if band.kind == "together" and items:
            yield from _of_items(band, run, items)
        else:
            word = (band.wrong or "{verdict}").replace("{verdict}", run.verdict)
            yield _Wrong(run.first, run.last, run.verdict, band, word)


def _of_items(band: Band, run: Run, items: ItemsReading) -> Iterator[_Wrong]:
    """How many of many are whole, wherever that changes."""
    for f in items.failing:
        first, last = max(f.first, run.first), min(f.last, run.last)
        if first <= last:
            word = f"{f.of - len(f.parts)} of {f.of} whole" if f.of > 1 else run.verdict
            yield _Wrong(first, last, run.verdict, band, word)


def _found(site: Site, finding: Finding, features: tuple[Feature, ...]) -> Iterator[_Wrong]:
    """What a rule has found that looks at each width by itself: its id says what."""
    if finding.severity != "wrong":
        return
    everywhere = [(site.narrowest, site.widest)]
    where = _where(site, holds(site, finding.when, features)) if finding.when else everywhere
    for first, last in finding.runs:
        for a, b in where:
            at, to = max(first, a), min(last, b)
            if at <= to:
                yield _Wrong(at, to, "found", None, finding.rule.replace("-", " "))


_Judged = Sequence[tuple[Band, Sequence[Run]]]


def _runs(plan: Plan, told: _Judged, wrong: Sequence[_Wrong], known: Known) -> list[VerdictRun]:
    first, last = plan.site.narrowest, plan.site.widest
    starts = {first, *(s.span.first for s in plan.spots)}
    starts |= {at for w in wrong for at in (max(w.first, first), w.last + 1)}
    starts |= {at for _, runs in told for r in runs for at in (r.first, r.last + 1)}
    for other in (o for part in plan.written for o in plan.alternatives(part)):
        starts |= {first + a for a, _ in equal_runs(seen(plan, other, known.features))}
    edges = [*sorted(s for s in starts if s <= last), last + 1]
    out: list[VerdictRun] = []
    for a, b in pairwise(edges):
        kinds = [band.kind for band, runs in told if any(r.first <= a <= r.last for r in runs)]
        here = [w for w in wrong if w.first <= a <= w.last]
        run = _at(plan, here, kinds, known, a, b - 1)
        before = out[-1] if out else None
        if before and before.model_copy(update={"first": a, "last": b - 1}) == run:
            out[-1] = before.model_copy(update={"last": b - 1})
        else:
            out.append(run)
    return out


def _at(
    plan: Plan,
    wrong: Sequence[_Wrong],
    kinds: Sequence[str],
    known: Known,
    first: int,
    last: int,
) -> VerdictRun:
    """The verdict of some widths between which nothing changes."""
    if wrong:
        worst = max(wrong, key=lambda w: _RANK[w.verdict])
        band, word = worst.band, worst.word
        if band and band.kind == "area":
            cut = sum(w.band.kind == "area" for w in wrong if w.band)
            word = f"{kinds.count('area') - cut} of {kinds.count('area')} whole"
        return VerdictRun(
            first=first,
            last=last,
            verdict=worst.verdict,
            drawn="lost" if worst.verdict in ("lost", "none") else "cut",
            word=word,
            band=band.id if band else None,
            figured=band.figured if band else "",
        )
    if word := _nothing(plan, first, known.features):
        if known.missing and not _nothing(known.missing[0], first, known.features):
            word = known.missing[1]
        return VerdictRun(first=first, last=last, verdict=None, drawn=None, word=word)
    well = _well(kinds, known.items)
    return VerdictRun(first=first, last=last, verdict="whole", drawn="whole", word=well)


def _nothing(plan: Plan, width: int, features: tuple[Feature, ...]) -> str:
    """What stands in the place of a picture; "" where one shows."""
    spot = next(s for s in plan.spots if s.span.first <= width <= s.span.last)
    held = [c.effective for c in (spot.cells if plan.layout.has_items else spot.cells[:1])]
    for part in plan.written[: len(held)]:
        for other in plan.alternatives(part):
            if seen(plan, other, features)[width - plan.site.narrowest]:
                held[part.index] = other.of(spot.span.letter).effective
    shows = {e.show for e in held}
    if "picture" not in shows:
        return "only colour" if "colour" in shows else "not shown"
    return "no picture yet" if any(e.waits for e in held) else ""


def _well(kinds: Sequence[str], items: ItemsReading | None) -> str:
    if items is not None and len(items.items) > 1:
        return f"all {len(items.items)} whole"
    if "area" in kinds:
        return "all whole"
    if "readable" in kinds:
        return "readable"
    return "sharp" if "sharp" in kinds else "shows"
