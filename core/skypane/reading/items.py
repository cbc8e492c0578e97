"""Many pictures of one spot at a glance: how the keep areas of all of them fare at every width, and
what each of them is."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

import numpy as np

from skypane.advice.crops import crop_in_ratio
from skypane.advice.followers import followers
from skypane.galleries.ratio import CommonRatio, Item, common_ratio, unlike_most
from skypane.geometry import Rect
from skypane.model import Finding, HeightRule, RatioHeight
from skypane.numerals import whole_px
from skypane.reading.detail import USUAL_RATIOS, frame_ratio
from skypane.reading.nouns import (
    Band,
    CommonRatioReading,
    FailingItems,
    ItemReading,
    ItemsReading,
    Sharpest,
)
from skypane.shown.keeps import FATES, LOST, SMALL, WHOLE_, Fate, fate_codes, hull
from skypane.shown.nouns import PartPlan, Plan, ShownSpan
from skypane.values import NOISE, once
from skypane.widths.curves import Curve
from skypane.widths.runs import Run, equal_runs, merged

#: From the gentlest to the worst.
_RANK = np.array([{WHOLE_: 0, SMALL: 1, LOST: 3}.get(code, 2) for code in range(len(FATES))])
_BY_RANK: tuple[Fate, ...] = ("whole", "small", "cut", "lost")


def items_reading(
    plan: Plan,
    findings: Sequence[Finding],
    chosen: tuple[int, str] | None,
    weight: Band | None = None,
) -> ItemsReading | None:
    """None where the kind has no items. `chosen` is the item that is worked on, and the span whose
    one ratio is worked out."""
    if not plan.layout.has_items:
        return None
    told = Counter(f.part for f in findings)
    runs: list[Run] = []
    failing: list[FailingItems] = []
    for at in range(len(plan.spans)):
        mine, who = _together(plan, at)
        runs += mine
        failing += who
    n = len(plan.written)
    return ItemsReading(
        items=tuple(_item(part, told[part.index]) for part in plan.written),
        one=plan.layout.one,
        together=Band(
            kind="together",
            id="together",
            name=f"All {n}" if n > 1 else f"The only {plan.layout.one}",
            runs=merged(runs),
            curve=Curve(points=tuple((w, r.worst) for r in runs for w in (r.first, r.last))),
        ),
        failing=tuple(failing),
        ratio=_ratio(plan, chosen[1]) if chosen else None,
        sharpest=_sharpest(plan, chosen[1]) if chosen else None,
        largest=_largest(plan.parts[min(chosen[0], len(plan.parts) - 1)]) if chosen else "",
        weight=weight,
        budget_bytes=plan.site.budget_bytes * n,
        crop_ratios=_crop_ratios(plan, chosen) if chosen else {},
    )


def _crop_ratios(plan: Plan, chosen: tuple[int, str]) -> dict[str, float]:
    """That of the chosen item's frame, where it has one at all widths of the span, and the usual
    ones."""
    p = plan.parts[min(chosen[0], len(plan.parts) - 1)].at(chosen[1])
    return {**({} if p is None else frame_ratio(p)), **USUAL_RATIOS}


def _item(part: PartPlan, findings: int) -> ItemReading:
    shown = part.shown[-1] if part.shown else None
    return ItemReading(
        original=shown.original.id if shown else None,
        name=shown.original.name if shown else "",
        findings=findings,
    )


@once
def _worst(p: ShownSpan) -> np.ndarray:
    """Per width the rank of the worst fate of the span's keep areas."""
    found = [_RANK[fate_codes(p, area)[0]] for area in p.keeps]
    nothing = np.broadcast_to(np.int64(0), p.viewport_w.shape)
    return np.maximum.reduce(found) if found else nothing


@once
def _fails(p: ShownSpan) -> bool:
    """Whether some keep area is not whole, or too small, somewhere in the span."""
    return bool(_worst(p).any())


def _together(plan: Plan, at: int) -> tuple[list[Run], list[FailingItems]]:
    """One span: runs of the worst fate of all items, and who fails in each of them."""
    spans = [(part.index, part.spans[at]) for part in plan.written]
    shown = [(i, p) for i, p in spans if isinstance(p, ShownSpan)]
    if not shown:
        return [], []
    v = shown[0][1].viewport_w
    # only those that fail somewhere are looked at width by width
    ranks = {i: _worst(p) for i, p in shown if _fails(p)}
    worst = np.maximum.reduce(list(ranks.values())) if ranks else np.zeros(len(v), dtype=np.int64)
    whole = len(shown) - sum((r > 0).astype(np.int64) for r in ranks.values()) + 0 * worst
    runs, failing = [], []
    for a, b in equal_runs(worst):
        share = whole[a:b] / len(shown)
        least = int(share.argmin())
        first, last = int(v[a]), int(v[b - 1])
        runs.append(
            Run(
                first=first,
                last=last,
                verdict=_BY_RANK[int(worst[a])],
                at_first=round(float(share[0]), 4),
                at_last=round(float(share[-1]), 4),
                worst=round(float(share[least]), 4),
                worst_at=int(v[a + least]),
            )
        )
        if who := tuple(i for i, rank in ranks.items() if rank[a:b].any()):
            failing.append(FailingItems(first=first, last=last, parts=who, of=len(shown)))
    return runs, failing


def _shown_in(plan: Plan, letter: str) -> dict[int, ShownSpan]:
    found = {part.index: part.of(letter) for part in plan.written}
    return {i: p for i, p in found.items() if isinstance(p, ShownSpan)}


def _own_ratio(p: ShownSpan) -> float:
    return p.spot.cells[p.index].ratio


def common_ratio_in(plan: Plan, letter: str) -> CommonRatio | None:
    """The one ratio of cells that loses least in a span; None where no picture shows there."""
    return common_ratio([_asked_of_ratio(p) for p in _shown_in(plan, letter).values()])


@once
def _asked_of_ratio(p: ShownSpan) -> Item:
    around = hull(p.keeps) if p.keeps else None
    w, h = (around.w / p.crop.w, around.h / p.crop.h) if around else (0.0, 0.0)
    return Item(_own_ratio(p), min(w, 1.0), min(h, 1.0))


def _ratio(plan: Plan, letter: str) -> CommonRatioReading | None:
    found, shown = common_ratio_in(plan, letter), _shown_in(plan, letter)
    spot = next(s for s in plan.spots if s.span.letter == letter)
    if found is None or plan.layout.keeps_ratios(spot):
        return None
    parts = list(shown)
    failing = sum(1 for p in shown.values() if _fails(p))
    most, unlike = unlike_most([_own_ratio(p) for p in shown.values()])
    return CommonRatioReading(
        letter=letter,
        ratio=round(found.ratio, 4),
        loss=round(found.loss, 4),
        cuts=tuple(parts[i] for i in found.cuts),
        most=round(most, 4),
        unlike=tuple(parts[i] for i in unlike),
        crops={i: _crop(p, found.ratio) for i, p in shown.items()},
        gentle=found.loss <= MOST_LOSS and len(found.cuts) < max(1, failing),
        height=(height := RatioHeight(w=round(found.ratio, 4), h=1)),
        follow=_following(plan, parts, letter, height),
    )


#: Where one ratio for all would cost the pictures more than this on average, those that are cut are
#: better shown whole.
MOST_LOSS = 0.4


def _following(
    plan: Plan, parts: Sequence[int], letter: str, height: HeightRule
) -> tuple[str, ...]:
    """The narrower spans in which some of the parts change with a height for all."""
    told = {x for i in parts for x in followers(plan.parts[i], letter, {"height": height})}
    return tuple(s.letter for s in plan.spans[::-1] if s.letter in told)


def _crop(p: ShownSpan, ratio: float) -> Rect | None:
    found = crop_in_ratio(p, ratio)
    return found if isinstance(found, Rect) else None


def _sharpest(plan: Plan, letter: str) -> Sharpest | None:
    """How wide the box can be until the first item is soft at the greatest density offered."""
    density = plan.site.densities[-1]
    found = [
        (_own_px(p) / density / _drawn_share(p), i, p) for i, p in _shown_in(plan, letter).items()
    ]
    if not found:
        return None
    frame_px, part, p = min(found, key=lambda f: f[:2])
    box_px = plan.layout.box_around(p.spot, frame_px)
    if box_px is None:
        return None
    return Sharpest(int(box_px + NOISE), density, part, round(_own_px(p)))


@once
def _own_px(p: ShownSpan) -> float:
    """How many px the original has in the cut."""
    return p.cut.w * p.original.width_px


@once
def _drawn_share(p: ShownSpan) -> float:
    """How wide the cut is drawn at most, in widths of its frame."""
    return float((p.drawn_cut_width / p.W).max())


def _largest(part: PartPlan) -> str:
    """Which span needs the largest file, and what the others need, at a density of 1."""
    needs: dict[int, list[str]] = {}
    for p in part.shown:
        needs.setdefault(whole_px(float(p.drawn_cut_width.max())), []).append(p.span.letter)
    said = [f"{' and '.join(letters)}, {px} px" for px, letters in sorted(needs.items())[::-1]]
    if not said:
        return ""
    rest = f"; on {', on '.join(said[1:])}" if len(said) > 1 else ""
    return f"The largest file is needed on {said[0]} wide at 1x{rest}."
