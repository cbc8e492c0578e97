"""One verdict for every width: the worst of all that is known of a placement there."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from itertools import pairwise

from skypane.reading.nouns import Band, ItemsReading, OwnReading, VerdictRun, Verdicts
from skypane.reading.nouns.words import WordsReading
from skypane.shown.nouns import Plan
from skypane.shown.seen import seen
from skypane.widths.runs import Verdict, equal_runs

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
)
_RANK = {verdict: len(ORDER) - i for i, verdict in enumerate(ORDER)}


def verdicts(
    plan: Plan,
    bands: Sequence[Band],
    words: WordsReading | None,
    items: ItemsReading | None,
    own: OwnReading | None,
    one_of: Band | None,
) -> tuple[Verdicts, ...]:
    """Per density that is offered the verdict of every width. `bands` are those of all parts, or of
    many items those of the chosen one, which speak beside the band of all. Without a band of
    sharpness nothing is said of it."""
    of_all = [items.together] if items else []
    of_kind = [*(words.bands if words else ()), *(own.bands if own else ())]
    others = [*of_all, *of_kind, *([one_of] if one_of else [])]
    many = items is not None and len(items.items) > 1
    out = []
    for density in plan.site.densities:
        told = [
            b
            for b in (*bands, *others)
            if b.density in (None, density)
            and b.kind not in ("weight", "frame")
            # of many items all are judged together
            and not (many and b.kind == "area")
        ]
        out.append(Verdicts(density=density, runs=tuple(_runs(plan, told, items))))
    return tuple(out)


def _runs(plan: Plan, bands: Sequence[Band], items: ItemsReading | None) -> list[VerdictRun]:
    first, last = plan.site.narrowest, plan.site.widest
    starts = {first, *(s.span.first for s in plan.spots)}
    for band in bands:
        starts |= {r.first for r in band.runs} | {r.last + 1 for r in band.runs if r.last < last}
    if items:
        starts |= {f.first for f in items.failing}
    for other in (o for part in plan.written for o in plan.alternatives(part)):
        starts |= {first + a for a, _ in equal_runs(seen(plan, other))}
    edges = [*sorted(starts), last + 1]
    out: list[VerdictRun] = []
    for a, b in pairwise(edges):
        run = _at(plan, bands, items, a, b - 1)
        before = out[-1] if out else None
        if before and before.model_copy(update={"first": a, "last": b - 1}) == run:
            out[-1] = before.model_copy(update={"last": b - 1})
        else:
            out.append(run)
    return out


def _at(
    plan: Plan, bands: Sequence[Band], items: ItemsReading | None, first: int, last: int
) -> VerdictRun:
    """The verdict of some widths between which no band changes."""
    here = [(b, r.verdict) for b in bands for r in b.runs if r.first <= first <= r.last]
    wrong = sorted((x for x in here if x[1] in _RANK), key=lambda x: -_RANK[x[1]])
    if wrong:
        band, verdict = wrong[0]
        word = _wrong(band, verdict, here, items, first)
        return VerdictRun(
            first=first, last=last, verdict=verdict, word=word, kind=band.kind, name=band.name
        )
    word = _nothing(plan, first)
    if word:
        return VerdictRun(first=first, last=last, verdict=None, word=word)
    return VerdictRun(first=first, last=last, verdict="whole", word=_well(here, items))


def _wrong(
    band: Band,
    verdict: Verdict,
    here: Iterable[tuple[Band, Verdict]],
    items: ItemsReading | None,
    at: int,
) -> str:
    match band.kind:
        case "area":
            fates = [v for b, v in here if b.kind == "area"]
            return f"{sum(v == 'whole' for v in fates)} of {len(fates)} whole"
        case "together" if items:
            found = next((f for f in items.failing if f.first <= at <= f.last), None)
            if found is not None and found.of > 1:
                return f"{found.of - len(found.parts)} of {found.of} whole"
            return verdict
        case "readable":
            return "words faint"
        case "clear":
            return f"{band.name.split(' ')[0].lower()} in the way"
        case "fits":
            return "words too tall"
        case "lettering":
            return "lettering too small"
        case "one":
            return "none shows" if verdict == "none" else "several show"
        case "seen":
            return "out of view"
    return verdict


def _nothing(plan: Plan, width: int) -> str:
    """What stands in the place of a picture; "" where one shows."""
    spot = next(s for s in plan.spots if s.span.first <= width <= s.span.last)
    held = [c.effective for c in (spot.cells if plan.layout.has_items else spot.cells[:1])]
    for part in plan.written[: len(held)]:
        for other in plan.alternatives(part):
            if seen(plan, other)[width - plan.site.narrowest]:
                held[part.index] = other.of(spot.span.letter).effective
    shows = {e.show for e in held}
    if "picture" not in shows:
        return "only colour" if "colour" in shows else "not shown"
    return "no picture yet" if any(e.waits for e in held) else ""


def _well(here: Iterable[tuple[Band, Verdict]], items: ItemsReading | None) -> str:
    kinds = {b.kind for b, _ in here}
    if items is not None and len(items.items) > 1:
        return f"all {len(items.items)} whole"
    if "area" in kinds:
        return "all whole"
    if "readable" in kinds:
        return "readable"
    return "sharp" if "sharp" in kinds else "shows"
