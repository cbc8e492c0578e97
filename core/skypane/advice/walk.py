"""The gentlest treatment that leaves every keep area whole (and large enough) at every width of a
span (rules §5).

Walked down in this order (common practice): aim, the whole picture, another ratio, words aside,
another original, a colour. Areas that are too small where they are seen are helped by a tighter
crop, then by a taller frame. Each step is computed; why a gentler one fails is said in numbers. No
step breaks a least or greatest height that was set: it says that it would have to.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from types import MappingProxyType

import numpy as np
from pydantic import ValidationError

from skypane.advice.aiming import by_aim, without_crop
from skypane.advice.aside import words_aside, words_lie_on
from skypane.advice.crops import by_tighter_crop
from skypane.advice.followers import with_followers
from skypane.advice.others import colour_alone, other_originals
from skypane.advice.remedies import Advice, Remedy, RemedyKind, fails
from skypane.advice.reshaping import by_height, by_ratio, shown_whole
from skypane.errors import InvalidPlan, sentence_of
from skypane.geometry import WHOLE
from skypane.handing_down import Handed
from skypane.model import Original, Placement
from skypane.shown.keeps import CUT, LOST, SMALL, failing, fate_codes
from skypane.shown.nouns import PartPlan, ShownSpan, SpanPlan
from skypane.treatments import with_values
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
    handed_of_kind: Mapping[str, Handed] = MappingProxyType({}),
) -> tuple[Advice, ...]:
    """The advice for every span of a part that fails, from the narrowest; or for the span of letter
    `only`, if it fails. Each remedy says which narrower spans follow it."""
    found = (
        advise(p, originals, budget_bytes) for p in part.spans if only in (None, p.span.letter)
    )
    return tuple(
        a.model_copy(update={"steps": with_followers(a.steps, part, a.span, handed_of_kind)})
        for a in found
        if a is not None
    )


def applied(placement: Placement, part: int, letter: str, remedy: Remedy) -> Placement:
    """The placement with one remedy taken for a part in one span."""
    mine = placement.parts[part]
    treatments = mine.treatments
    if remedy.treatment:
        treatments = with_values(treatments, letter, remedy.treatment)
    layout = dict(placement.layout)
    if remedy.layout:
        layout[letter] = {**layout.get(letter, {}), **remedy.layout}
    changed = placement.with_part(part, mine.model_copy(update={"treatments": treatments}))
    return changed.model_copy(update={"layout": layout})
