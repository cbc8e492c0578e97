"""Words aside: where they keep a picture from being shown whole, they can stand below it."""

from __future__ import annotations

from dataclasses import replace

from pydantic import JsonValue

from skypane.advice.remedies import Remedy, fails
from skypane.advice.reshaping import shown_whole
from skypane.shown.nouns import ShownSpan, SpanPlan
from skypane.shown.parts import plan_part


def words_lie_on(p: SpanPlan) -> bool:
    return p.index == 0 and p.layout.words_lie_on(p.spot)


def with_layout(p: SpanPlan, said: dict[str, JsonValue]) -> SpanPlan:
    """A span with other values of the kind itself, checked and planned anew. Raises InvalidPlan."""
    values = p.layout.values({**p.spot.values.model_dump(mode="json"), **said})
    original = p.original if isinstance(p, ShownSpan) else None
    return plan_part(p.layout, replace(p.spot, values=values), p.index, original)


def words_aside(p: ShownSpan) -> Remedy:
    """The words below, and the picture whole above them."""
    said = p.layout.words_below()
    q = with_layout(p, said)
    if not isinstance(q, ShownSpan):
        return fails("words", "Without a picture there is nothing to put words below.")
    step = shown_whole(q)
    if not step.works:
        return fails("words", f"With the words below it: {step.why[:1].lower()}{step.why[1:]}")
    why = step.why.replace(
        "Nothing lies on the picture, so it", "With the words below it nothing lies on it: it"
    )
    label = f"Words below, {step.label[:1].lower()}{step.label[1:]}"
    return step.model_copy(update={"kind": "words", "why": why, "label": label, "layout": said})
