"""The gentlest treatment that leaves every keep area whole (and large enough) at every width of a
span (02-rules §5).

Walked down in this order (common practice): aim, the whole picture, another ratio, another
original, a colour. Areas that are too small where they are seen are helped by a tighter crop, then
by a taller frame. Each step is computed; why a gentler one fails is said in numbers. No step breaks
a least or greatest height that was set: it says that it would have to.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping

import numpy as np
from pydantic import ValidationError

from skypane.advice.aiming import by_aim, without_crop
from skypane.advice.crops import by_tighter_crop
from skypane.advice.others import colour_alone, other_originals
from skypane.advice.reshaping import by_height, by_ratio, shown_whole
from skypane.advice.steps import Advice, AdviceStep, StepKind
from skypane.errors import InvalidPlan, sentence_of
from skypane.geometry import WHOLE
from skypane.model import Original, Placement, Site, Treatment
from skypane.shown.keeps import failing, fates
from skypane.shown.plan import SpanPlan
from skypane.treatments import FIELDS, OF_ORIGINAL, UNCROPPED


def advise(
    site: Site, p: SpanPlan, originals: Mapping[int, Original], narrower: SpanPlan | None = None
) -> Advice | None:
    """Walk down the steps for one span; None where every area is whole. `narrower` is the next
    narrower span, if any."""
    wrong = failing(p)
    if not wrong or p.original is None:
        return None
    steps = [_had("aim", by_aim, site, p)]
    if p.crop is not WHOLE:
        steps.append(_had("uncrop", without_crop, site, p))
    verdicts = [fates(p, a)[0] for a in wrong]
    if any(np.isin(v, ("cut", "lost")).any() for v in verdicts):
        steps += [_had("whole", shown_whole, site, p), _had("ratio", by_ratio, site, p)]
    if any((v == "small").any() for v in verdicts):
        steps += [_had("crop", by_tighter_crop, site, p), _had("taller", by_height, site, p)]
    steps += [*other_originals(site, p, originals), *colour_alone(site, p)]
    if narrower is not None:
        steps = [
            s.model_copy(update={"also": pinned(narrower, s.treatment)}) if s.treatment else s
            for s in steps
        ]
    best = next((i for i, s in enumerate(steps) if s.works), None)
    return Advice(
        span=p.span.letter, failing=tuple(a.name for a in wrong), steps=tuple(steps), best=best
    )


def _had(
    kind: StepKind, step: Callable[[Site, SpanPlan], AdviceStep], site: Site, p: SpanPlan
) -> AdviceStep:
    """The step; or, where it comes to a frame or crop that cannot be, that it cannot be had and
    why."""
    try:
        return step(site, p)
    except InvalidPlan as problem:
        return AdviceStep(kind=kind, works=False, why=f"It cannot be had here: {problem}")
    except ValidationError as problem:
        return AdviceStep(
            kind=kind, works=False, why=f"It cannot be had here: {sentence_of(problem)}"
        )


def advise_all(
    site: Site,
    plans: tuple[SpanPlan, ...],
    originals: Mapping[int, Original],
    only: str | None = None,
) -> tuple[Advice, ...]:
    """The advice for every span that fails, from the narrowest; or for the span of letter `only`,
    if it fails."""
    found = (
        advise(site, p, originals, plans[i - 1] if i else None)
        for i, p in enumerate(plans)
        if only is None or p.span.letter == only
    )
    return tuple(a for a in found if a)


def pinned(narrower: SpanPlan, treatment: Treatment) -> dict[str, Treatment]:
    """What the next narrower span has to take for its own so that it stays as it is when
    `treatment` is laid on a wider one."""
    e, letter = narrower.effective, narrower.span.letter
    set_ = {f for f in FIELDS if getattr(treatment, f) is not None}
    if "original" in set_:
        set_ |= set(OF_ORIGINAL)
    values = {f: getattr(e, f) for f in set_ if e.origin[f] != letter}
    if "crop" in values and values["crop"] is None:
        values["crop"] = UNCROPPED if treatment.crop is not None else None
    if "keeps" in values and values["keeps"] is None and treatment.keeps is not None:
        values["keeps"] = tuple(a.name for a in narrower.keeps)
    values = {f: v for f, v in values.items() if v is not None}
    return {letter: Treatment(**values)} if values else {}


def applied(placement: Placement, letter: str, step: AdviceStep) -> Placement:
    """The placement with one step taken."""
    treatments = dict(placement.treatments)
    for where, values in {letter: step.treatment or Treatment(), **step.also}.items():
        own = treatments.get(where, Treatment())
        treatments[where] = own.model_copy(
            update={f: v for f in FIELDS if (v := getattr(values, f)) is not None}
        )
    return placement.model_copy(update={"treatments": treatments})
