"""Style rules for an element that a host has: its frame, the picture as its background, and what
lies over that (Selectors Level 4; CSS Backgrounds 3)."""

from __future__ import annotations

import re
from dataclasses import replace

from skypane.errors import InvalidPlan
from skypane.files.renditions import Files
from skypane.hosts.alone import alone, can_stand_alone, places_alone
from skypane.markup.css import css_lines
from skypane.markup.elements import Addresses
from skypane.markup.lines import Line
from skypane.model import OnPicture
from skypane.shown.nouns import Plan
from skypane.widths.conditions import in_testing_order, lower_condition, upper_condition
from skypane.words import scrim

#: The class that stands for the element while its rules are written.
_MARK = "sky-pane-target"
_MARKED = re.compile(rf"(?<!\()\.{_MARK}")


def rules_lines(placed: Plan, files: Files, addresses: Addresses) -> tuple[Line, ...]:
    """The rules for the element that the placement's `target` selects. Raises InvalidPlan where it
    has no such element, or where no rules can show it."""
    target = placed.placement.target
    if not can_stand_alone(placed):
        raise InvalidPlan(
            "Rules for an element of the host show one picture that fills a frame; a"
            f" {placed.layout.kind} has a layout of its own. Build it with what the host has for"
            " that.",
            field="kind",
        )
    if not target:
        raise InvalidPlan(
            "Nobody has said yet which element of the host shows this. Write its selector, in"
            " Code.",
            field="target",
        )
    places = places_alone(placed)
    mine = tuple((replace(g, part=places[g.part]), made) for g, made in files if g.part in places)
    written = css_lines(alone(placed, stem=_MARK, way="background"), mine, addresses)
    beneath = [
        # what the element holds lies over it
        *(Line(text) for text in (f"{target} {{", "  isolation: isolate;", "}")),
        *(Line(text) for text in (f"{target}::before {{", "  z-index: -1;", "}")),
    ]
    return (*(_for_target(line, target) for line in written), *beneath, *_overlay(placed, target))


def _for_target(line: Line, target: str) -> Line:
    """A line for the element itself. A class that is said twice, so that it counts for more, is a
    condition that always holds."""
    text = line.text.replace(f".{_MARK}.{_MARK}", f".{_MARK}:not(.{_MARK})")
    return line._replace(text=_MARKED.sub(lambda _: target, text))


def _overlay(placed: Plan, target: str) -> list[Line]:
    """What lies between picture and words, span by span; nothing where nothing does."""
    over = {s.span.letter: overlay_css(s.values) for s in placed.spots}
    if set(over.values()) == {"none"}:
        return []
    style, before = placed.site.media_style, ""
    fixed = ('  content: "";', "  position: absolute;", "  inset: 0;", "  z-index: -1;")
    lines = [Line(f"{target}::after {{"), *(Line(text) for text in fixed), Line("}")]
    for n, span in enumerate(reversed(in_testing_order(placed.spans, style))):
        said = over[span.letter]
        if said == before:
            continue
        before, letters = said, (span.letter,)
        rule = [f"{target}::after {{", f"  background: {said};", "}"]
        if n:
            lower = style == "min-width"
            media = lower_condition(span.first) if lower else upper_condition(span.last, style)
            rule = [f"@media {media} {{", *(f"  {text}" for text in rule), "}"]
        lines += [Line(text, letters) for text in rule]
    return lines


def overlay_css(values: object) -> str:
    """What a kind's values lay between picture and words, as `background`; "none" for nothing."""
    if not isinstance(values, OnPicture):
        return "none"
    return scrim.css(values.scrim, values.strength)
