"""The gentlest treatment that leaves every keep area whole (and large enough) at every width of a
span (02-rules §5).

Walked down in this order (common practice): aim, the whole picture, another ratio, words aside,
another original, a colour. Areas that are too small where they are seen are helped by a tighter
crop, then by a taller frame. Each step is computed; why a gentler one fails is said in numbers. No
step breaks a least or greatest height that was set: it says that it would have to.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from types import MappingProxyType
from typing import Any

import numpy as np
from pydantic import ValidationError

from skypane.advice.aiming import by_aim, without_crop
from skypane.advice.aside import words_aside, words_lie_on
from skypane.advice.crops import by_tighter_crop
from skypane.advice.others import colour_alone, other_originals
from skypane.advice.remedies import Advice, Remedy, RemedyKind, fails
from skypane.advice.reshaping import by_height, by_ratio, shown_whole
from skypane.errors import InvalidPlan, sentence_of
from skypane.geometry import WHOLE
from skypane.model import Original, Placement, Treatment
from skypane.shown.keeps import CUT, LOST, SMALL, failing, fate_codes
from skypane.shown.nouns import PartPlan, ShownSpan, SpanPlan
from skypane.treatments import ALL, NAMED, OF_ORIGINAL, LayoutSaid, own_values, with_values
from skypane.values import once


def advise(p: SpanPlan, originals: Mapping[int, Original], budget_bytes: int) -> Advice | None:
    """Walk down the remedies for one span; None where every area is whole. `budget_bytes` is what a
    picture may weigh."""
    wrong = failing(p) if isinstance(p, ShownSpan) else ()
    if not isinstance(p, ShownSpan) or not wrong:
        return None
    before, after = _same_original(p)
    steps = (*before, *other_originals(p, originals, budget_bytes), *after)
    best = next((i for i, s in enumerate(steps) if s.works), None)
    return Advice(span=p.span.letter, failing=tuple(a.name for a in wrong), steps=steps, best=best)


@once
def _same_original(p: ShownSpan) -> tuple[tuple[Remedy, ...], tuple[Remedy, ...]]:
    """What can be done with the original that is there: the gentle remedies, and the last ones."""
    steps = [_had("aim", by_aim, p)]
    if p.crop is not WHOLE:
        steps.append(_had("uncrop", without_crop, p))
    codes = np.unique(np.concatenate([fate_codes(p, a)[0] for a in failing(p)]))
    if CUT in codes or LOST in codes:
        steps += [_had("whole", shown_whole, p), _had("ratio", by_ratio, p)]
        if words_lie_on(p):
            steps.append(_had("words", words_aside, p))
    if SMALL in codes:
        steps += [_had("crop", by_tighter_crop, p), _had("taller", by_height, p)]
    return tuple(steps), tuple(colour_alone(p))


def _had(kind: RemedyKind, remedy: Callable[[ShownSpan], Remedy], p: ShownSpan) -> Remedy:
    """The remedy; or, where it comes to a frame or crop that cannot be, that it cannot be had and
    why."""
    try:
        return remedy(p)
    except InvalidPlan as problem:
        return fails(kind, f"It cannot be had here: {problem}")
    except ValidationError as problem:
        return fails(kind, f"It cannot be had here: {sentence_of(problem)}")


def advise_part(
    part: PartPlan,
    originals: Mapping[int, Original],
    budget_bytes: int,
    only: str | None = None,
    said: Mapping[str, LayoutSaid] = MappingProxyType({}),
) -> tuple[Advice, ...]:
    """The advice for every span of a part that fails, from the narrowest; or for the span of letter
    `only`, if it fails. Each remedy says what keeps the next narrower span as it is."""
    out = []
    for i, p in enumerate(part.spans):
        advice = advise(p, originals, budget_bytes) if only in (None, p.span.letter) else None
        if advice is None:
            continue
        if i:
            narrower = part.spans[i - 1]
            steps = with_narrower(advice.steps, narrower, part.origins[narrower.span.letter], said)
            advice = advice.model_copy(update={"steps": steps})
        out.append(advice)
    return tuple(out)


def with_narrower(
    steps: Iterable[Remedy],
    narrower: SpanPlan,
    origin: Mapping[str, str],
    said: Mapping[str, LayoutSaid],
) -> tuple[Remedy, ...]:
    """Remedies with what keeps the next narrower span as it is. `origin` says where the values of
    its treatment come from, `said` the kind's own values by letter."""
    out = []
    letter = narrower.span.letter
    for step in steps:
        treated = step.treatment
        found = said.get(letter)
        own = {f for f, where in found.origin.items() if where == letter} if found else set()
        values = narrower.spot.values.model_dump(mode="json")
        kept = {f: values[f] for f in step.layout if f not in own}
        changed: dict[str, Any] = {"narrower_layout": {letter: kept} if kept else {}}
        if treated:
            changed["narrower"] = left_alone(narrower, origin, treated)
        out.append(step.model_copy(update=changed))
    return tuple(out)


def left_alone(
    narrower: SpanPlan, origin: Mapping[str, str], treatment: Treatment
) -> dict[str, Treatment]:
    """What the next narrower span has to take for its own so that it stays as it is when
    `treatment` is laid on a wider one. `origin` says where its values come from."""
    letter = narrower.span.letter
    changed = set(own_values(treatment))
    if "original" in changed:
        changed |= set(OF_ORIGINAL)
    values: dict[str, Any] = {
        f: getattr(narrower.effective, f)
        for f in changed
        if origin[f] not in (letter, f"{ALL}{letter}", f"{NAMED}{letter}")
    }
    if "crop" in values and values["crop"] is None:
        values["crop"] = WHOLE if treatment.crop is not None else None
    if "keeps" in values and values["keeps"] is None and treatment.keeps is not None:
        values["keeps"] = tuple(a.name for a in narrower.keeps)
    values = {f: v for f, v in values.items() if v is not None}
    return {letter: Treatment(**values)} if values else {}


def applied_all(placement: Placement, part: int, remedies: Mapping[str, Remedy]) -> Placement:
    """The placement with a remedy taken in each of several spans, by letter.

    From the widest, so that what keeps a narrower span as it is never lies over its own remedy.
    """
    for letter in sorted(remedies, reverse=True):
        placement = applied(placement, part, letter, remedies[letter])
    return placement


def applied(placement: Placement, part: int, letter: str, remedy: Remedy) -> Placement:
    """The placement with one remedy taken for a part in one span."""
    mine = placement.parts[part]
    treatments = mine.treatments
    for where, values in {letter: remedy.treatment or Treatment(), **remedy.narrower}.items():
        treatments = with_values(treatments, where, values)
    layout = dict(placement.layout)
    for where, said in {letter: remedy.layout, **remedy.narrower_layout}.items():
        if said:
            layout[where] = {**layout.get(where, {}), **said}
    changed = placement.with_part(part, mine.model_copy(update={"treatments": treatments}))
    return changed.model_copy(update={"layout": layout})
