"""The frame rules that give rectangles on a design (rules §17)."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from skypane.model import ColumnsWidth, Container, Stands, WidthRule
from skypane.spots.heights import height_of
from skypane.spots.nouns import NEAR_PX, Asked, ReadRule, Seen
from skypane.spots.sentences import height_words, in_words, width_words
from skypane.spots.widths import fitting, px_at
from skypane.widths.frames import frame_widths, holder_widths, standing_left

#: Screens at which a proposed rule says how wide it makes the frame, in CSS px.
TOLD_AT = (360, 768, 1280, 1920)
#: So many rules are proposed.
MOST_RULES = 8
#: Which place is taken of those that are alike.
PLACES: tuple[Stands, ...] = ("centre", "start", "end")


def frame_rules(asked: Asked) -> tuple[ReadRule, ...]:
    """The rules that give every rectangle to within a px, the simplest first, of equally simple
    ones the nearest. Those whose place is given too come before those that only are as wide; of
    rules that make a frame equally wide at every width the first is told."""
    height = height_of(asked.seen)
    read: list[tuple[bool, ReadRule]] = []
    known = set()
    fits = sorted(
        fitting(asked.seen, asked.container, asked.gutter_px), key=lambda f: (*f.order, f.off)
    )
    for fit in fits:
        at = px_at(fit.rule, asked.container, TOLD_AT)
        same = (*at, px_at(fit.rule, asked.container, [s.width for s in asked.seen]))
        if same in known:
            continue
        known.add(same)
        place = _place(fit.rule, asked)
        found = ReadRule(
            width=fit.rule,
            height=height,
            stands=place.stands,
            column=place.column,
            sentence=_sentence(fit.rule, height, place),
            at=at,
        )
        read.append((not place.is_given, found))
    read.sort(key=lambda r: r[0])  # which keeps the order of those that are alike
    return tuple(rule for _, rule in read[:MOST_RULES])


class _Place(NamedTuple):
    """Where a frame stands at the rectangles: one of its own places, or over columns."""

    stands: Stands | None
    column: int | None

    @property
    def is_given(self) -> bool:
        return self.stands is not None or self.column is not None


def _place(rule: WidthRule, asked: Asked) -> _Place:
    v = np.array([s.width for s in asked.seen])
    widths = frame_widths(rule, v, asked.container)
    left = np.array([s.left for s in asked.seen])
    for stands in PLACES:
        found = standing_left(stands, rule, v, widths, asked.container)
        if (np.abs(found - left) <= NEAR_PX).all():
            return _Place(stands, _column(rule, asked.container, asked.seen))
    return _Place(None, _column(rule, asked.container, asked.seen))


def _column(rule: WidthRule, container: Container, seen: Sequence[Seen]) -> int | None:
    """The first of the columns that a frame stands over at all rectangles, from 1."""
    if not isinstance(rule, ColumnsWidth):
        return None
    v = np.array([s.width for s in seen])
    holder = holder_widths(rule.of, v, container)
    step = (holder + rule.gutter_px) / rule.columns
    left = np.array([s.left for s in seen]) - (v - holder) / 2
    for column in range(rule.columns - rule.take + 1):
        if (np.abs(column * step - left) <= NEAR_PX).all():
            return column + 1
    return None


_ORDINALS = ("first", "second", "third", "fourth", "fifth", "sixth")


def _sentence(rule: WidthRule, height: object, place: _Place) -> str:
    words = width_words(rule)
    if isinstance(rule, ColumnsWidth) and place.column and rule.of == "container":
        first = place.column
        which = _ORDINALS[first - 1] if first <= len(_ORDINALS) else f"column {first}"
        if rule.take == 1:
            words = f"the {which} of {in_words(rule.columns)} columns" if first <= 6 else words
        elif first > 1:
            words += f", from the {which}"
        if rule.take == 1 and first <= 6:
            words += f", gutter {rule.gutter_px:g}"
    if not place.is_given:
        words += ", standing elsewhere than a frame does by itself"
    if height is not None:
        words += f"; {height_words(height)}"  # type: ignore[arg-type]
    return words[:1].upper() + words[1:] + "."
