"""The CSS that frames and aims a picture.

It repeats the media conditions of the markup, so that picture and frame always change at the same
width, fractional widths included.
"""

from __future__ import annotations

import re
from collections.abc import Collection, Mapping, Sequence
from dataclasses import replace
from functools import lru_cache

from skypane.files.inline import inline_of
from skypane.files.names import part_class
from skypane.files.renditions import Files, by_letter, by_part, renditions
from skypane.geometry import WHOLE
from skypane.layouts import SCRIPTED, Facts, Layout, Spot
from skypane.markup.background import FIXED as BACKGROUND_FIXED
from skypane.markup.background import Offering, as_background, background_rules
from skypane.markup.css_rule import CssRule, Declared, commented, holds_in, shared
from skypane.markup.elements import Addresses
from skypane.markup.html import in_folder
from skypane.markup.lines import Line
from skypane.markup.span_css import SpanCss, cut_of, span_css
from skypane.markup.ways import may_differ, way_of
from skypane.model import Way
from skypane.shown.nouns import PartPlan, Plan, SpanPlan
from skypane.values import once
from skypane.widths.conditions import (
    in_testing_order,
    lower_condition,
    media_of,
    upper_condition,
)

_FIXED_FRAME = {"position": "relative", "overflow": "hidden"}
_FIXED_IMG = {"position": "absolute", "inset": "0", "width": "100%", "height": "100%"}
#: Declarations that say nothing where no span says otherwise.
_NEUTRAL = {
    "display": "revert",
    "--as": "grid",
    "margin-inline": "0",
    "min-height": "0",
    "max-height": "none",
    "aspect-ratio": "auto",
    "height": "auto",
    "margin-top": "0",
    "padding-left": "0",
    "flex": "none",
    "flex-wrap": "nowrap",
    "grid-column": "auto",
    "grid-row": "auto",
    "grid-auto-flow": "row",
    "grid-auto-columns": "auto",
    "overflow": "visible",
    "overflow-x": "visible",
    "scroll-snap-type": "none",
    "scroll-snap-align": "none",
    "scroll-padding": "auto",
    "container-type": "normal",
    "--more": "none",
    "--at": "0",
}


def css_lines(
    plan: Plan,
    files: Files | None = None,
    addresses: Addresses = in_folder("images/"),  # made once
    *,
    whole: bool = False,
) -> tuple[Line, ...]:
    """The CSS of a placement. `files` are those of a delivery, None: all that are planned;
    `addresses` tells where they are to be had as backgrounds. `whole`: for whole crops instead of
    the cut files, each of them in a `picture`; both show the same.

    The block without a condition is the span that is tested last; the others follow so that later
    ones win.
    """
    style, spans = plan.site.media_style, plan.spans
    written = tuple(reversed(in_testing_order(spans, style)))
    order, boxed = tuple(s.letter for s in written), bool(plan.layout.box)
    of_kinds, under = _kind_rules(plan, order), _kind_rules_under(plan, order)
    names = [part_class(plan.placement, part.index, boxed) for part in plan.written]
    mine = {} if whole or not may_differ(plan) else by_part(files or renditions(plan))
    ways = [_way(plan, part, mine) for part in plan.written]
    each = list(zip(plan.written, names, ways, strict=True))
    blurred = plan.placement.blurred
    parts = [_part_rules(p, name, whole, order, way, blurred) for p, name, way in each]
    for part, name, way in each:
        if plan.alternatives(part):
            parts += _variant_rules(plan, part, name, whole, order, way)
    images = [
        background_rules(part, name, _offering(plan, part, mine, addresses))
        for part, name, way in each
        if way == "background"
    ]
    blocks = []
    for span in written:
        of_parts = [rule for rules in parts for rule in rules[span.letter]]
        of_kind = of_kinds[span.letter]
        if plan.layout.is_large:
            # cells come after what is said of all of them
            of_kind, of_parts = shared(of_kind, first="> :nth-child"), shared(of_parts)
        of_kind = [*of_kind, *under.get(span.letter, ())]
        of_images = [rule for rules in images for rule in rules[span.letter]]
        blocks.append([*of_kind, *of_parts, *of_images])
    lines: list[Line] = []
    holding = holds_in(blocks, order) if not whole else None
    for i, (span, rules) in enumerate(zip(written, blocks, strict=True)):
        if not rules:
            continue
        told = [
            Line(text, holding[i][n] if holding else (span.letter,))
            for n, rule in enumerate(rules)
            for text in rule.lines
        ]
        if i == 0:
            lines += told
            continue
        is_lower = style == "min-width"
        condition = lower_condition(span.first) if is_lower else upper_condition(span.last, style)
        letters = tuple(sorted({letter for line in told for letter in line.spans or order}))
        lines.append(Line(text=f"@media {condition} {{", spans=letters))
        lines += [line.indented() for line in told]
        lines.append(Line(text="}", spans=letters))
    return tuple(lines)


def _way(plan: Plan, part: PartPlan, files: Mapping[int, Files]) -> Way:
    """The way of a part; without any file each is a `picture`, but for what stands in the page."""
    if inline_of(plan, part) is not None:
        return "svg"
    return way_of(plan, part, files.get(part.index, ())) if files else "picture"


def _offering(
    plan: Plan, part: PartPlan, files: Mapping[int, Files], addresses: Addresses
) -> Offering:
    """What a background takes: the files of a part and of what shows in its place."""
    return Offering(
        by_letter(files.get(part.index, ())),
        [(other, by_letter(files.get(other.index, ()))) for other in plan.alternatives(part)],
        plan.site.densities,
        addresses,
        plan.site.media_style,
    )


def _kind_rules(plan: Plan, order: tuple[str, ...]) -> Mapping[str, Sequence[CssRule]]:
    """The rules of the kind itself in the order of writing, by the letter of their span."""
    if plan.layout.is_large:
        facts = tuple(s.facts for s in plan.spots)
        return _rules_of_many(plan.layout, plan.placement.called, order, facts)
    return _rules_of(
        plan.layout,
        plan.placement.called,
        order,
        plan.spots,
        [there.spots for there in plan.under.values()],
    )


@lru_cache(maxsize=4)
def _rules_of_many(
    layout: Layout, called: str, order: tuple[str, ...], facts: tuple[Facts, ...]
) -> Mapping[str, Sequence[CssRule]]:
    """The rules of a kind of many items, which follow from the facts of its spans alone: they stay
    while one item is aimed."""
    return _rules_of(layout, called, order, [f.spot for f in facts])


def _rules_of(
    layout: Layout,
    called: str,
    order: tuple[str, ...],
    spots: Sequence[Spot],
    under: Sequence[Sequence[Spot]] = (),
) -> Mapping[str, Sequence[CssRule]]:
    others = [s for there in under for s in there]
    also = [_declared_of(layout, there, [*spots, *others]) for there in under]
    sheet = _KindSheet(called, _declared_of(layout, spots, [*spots, *others]), also)
    return {letter: sheet.rules(letter) for letter in order}


#: Declarations by selector, by the letter of a span.
_Declarations = dict[str, dict[str, dict[str, str]]]


def _declared_of(
    layout: Layout, spots: Sequence[Spot], everywhere: Sequence[Spot]
) -> _Declarations:
    """What the kind itself declares. What is there in none of the spots `everywhere`, those under
    conditions among them, is left out."""
    left_out = layout.without(everywhere)
    return {
        s.span.letter: {
            of: rule
            for of, rule in layout.rules(s).items()
            if not (left_out and of.removeprefix(SCRIPTED).startswith(left_out))
        }
        for s in spots
    }


def _kind_rules_under(plan: Plan, order: tuple[str, ...]) -> dict[str, list[CssRule]]:
    """What the kind itself declares otherwise while others show in the place of parts, by the
    letter of the span: the rows of a gallery follow from the ratios of its pictures. Those with the
    fewest conditions first, and read before what usually holds, whatever they follow (Selectors
    Level 4, §17)."""
    if not plan.under:
        return {}
    everywhere = [*plan.spots, *(s for there in plan.under.values() for s in there.spots)]
    usual = _declared_of(plan.layout, plan.spots, everywhere)
    under = {
        when: _declared_of(plan.layout, there.spots, everywhere)
        for when, there in plan.under.items()
    }
    # what holds otherwise under one of them is declared under all: several may hold at once
    differs = dict.fromkeys(
        (of, name)
        for there in under.values()
        for letter, rules in there.items()
        for of, declared in rules.items()
        for name, value in declared.items()
        if usual[letter].get(of, {}).get(name) != value
    )
    selectors = list(dict.fromkeys(of for of, _ in differs))
    out: dict[str, list[CssRule]] = {letter: [] for letter in order}
    before: dict[str, list[dict[str, str]]] = {}
    for letter in order:
        rules: list[list[CssRule]] = [[] for _ in under]
        for of in selectors:
            now = [
                {n: v for n, v in there[letter].get(of, {}).items() if (of, n) in differs}
                for there in under.values()
            ]
            # what one says anew all say anew: the last one that is read wins
            if before.get(of) == now:
                continue
            before[of] = now
            declared = Declared(_twice(plan.placement.called, of.removeprefix(SCRIPTED)))
            for mine, when, told in zip(rules, under, now, strict=True):
                media, scripted = media_of(when), of.startswith(SCRIPTED)
                made = declared.rule(told)
                mine += [r._replace(media=media, scripted=scripted) for r in made]
        out[letter] = [r for mine in rules for r in shared(mine, first="> :nth-child")]
    return out


def _twice(called: str, of: str) -> str:
    """The selector that counts for more than `.called` and what follows it: its class twice. What
    follows may be the rest of its name."""
    name, rest = re.match(r"([\w-]*)(.*)", of, re.DOTALL).groups()  # type: ignore[union-attr]  # of any text
    return f".{called}{name}.{called}{name}{rest}"


class _KindSheet:
    """The box around all parts, and what the kind itself puts into it."""

    def __init__(self, called: str, css: _Declarations, under: Sequence[_Declarations]) -> None:
        self.css = css
        self.everywhere = [rules for there in (css, *under) for rules in there.values()]
        first = next(iter(self.css.values()))
        self.declared = {
            k: Declared(f".{called}{k.removeprefix(SCRIPTED)}")
            for k in first
            if not self._unseen(k)
        }
        self.idle = {k: _idle([css[k] for css in self.css.values()]) for k in self.declared}

    def _unseen(self, of: str) -> bool:
        """Whether it is a pseudo-element that paints nothing in any span, whatever holds."""
        return all(css[of].get("background") == "none" for css in self.everywhere) and (
            "content" in next(iter(self.css.values()))[of]
        )

    def rules(self, letter: str) -> list[CssRule]:
        out: list[CssRule] = []
        for of, declared in self.declared.items():
            said = {k: v for k, v in self.css[letter][of].items() if k not in self.idle[of]}
            rules = declared.rule(declared.changed(said))
            out += [r._replace(scripted=of.startswith(SCRIPTED)) for r in rules]
        return out


def _idle(all_css: Sequence[dict[str, str]]) -> set[str]:
    """Declarations that say nothing in any span."""
    first, *others = all_css
    same = (k for k, v in first.items() if _NEUTRAL.get(k) == v)
    return {k for k in same if all(css.get(k, first[k]) == first[k] for css in others)}


@once
def _part_rules(
    part: PartPlan, name: str, whole: bool, order: tuple[str, ...], way: Way, blurred: bool
) -> dict[str, list[CssRule]]:
    """The rules of one part in the order of writing, by the letter of their span."""
    sheet = _PartSheet(part, name, whole, way, blurred and way != "background")
    return {letter: sheet.rules(letter) for letter in order}


def _variant_rules(
    plan: Plan, part: PartPlan, name: str, whole: bool, order: tuple[str, ...], way: Way
) -> list[dict[str, list[CssRule]]]:
    """What differs where others show in the place of a part, those with the fewest conditions
    first: later rules win. In a span in which one of them lets the part itself show it comes before
    all others, which may hold as well. All are read before those of the part itself, whatever they
    follow (Selectors Level 4, §17)."""
    others = plan.alternatives(part)[::-1]
    shows = [
        tuple(
            of if of.span.letter in other.usual else own
            for of, own in zip(part.spans, other.spans, strict=True)
        )
        for other in others
    ]
    blurred = plan.placement.blurred and way != "background"
    usual = [_css_of(p, whole, blurred) for p in part.spans]
    css = [[_css_of(p, whole, blurred) for p in spans] for spans in shows]
    # what any of them says otherwise all of them say: two may hold at once
    same = {
        k
        for of in ("frame", "img")
        for k in getattr(usual[0], of)
        if all(
            getattr(a, of).get(k) == getattr(b, of).get(k)
            for mine in css
            for a, b in zip(mine, usual, strict=True)
        )
    }
    if any(c.exact for mine in (usual, *css) for c in mine):
        # one that is exact would else hold for what is not
        same.discard("object-position")
    called = f"{plan.placement.called} .{name}" if plan.layout.box else f"{name}.{name}"
    sheets = [
        (
            media_of(other.part.when),
            _PartSheet(replace(other, spans=spans), called, whole, way, blurred, same),
        )
        for other, spans in zip(others, shows, strict=True)
    ]
    out: dict[str, list[CssRule]] = {}
    before: list[tuple[SpanCss, bool]] = []
    for letter in order:
        now = [
            (sheet.css[letter], letter in other.usual)
            for other, (_, sheet) in zip(others, sheets, strict=True)
        ]
        # what one says anew all say anew: the last one that is read wins
        if len(sheets) > 1 and now != before:
            for _, sheet in sheets:
                sheet.forget()
        before = now
        usual_first = sorted(zip(now, sheets, strict=True), key=lambda each: not each[0][1])
        out[letter] = [
            rule._replace(media=media)
            for _, (media, sheet) in usual_first
            for rule in sheet.rules(letter)
        ]
    return [out]


def _css_of(p: SpanPlan, whole: bool, blurred: bool) -> SpanCss:
    return span_css(p, WHOLE if whole else cut_of(p), blurred)


class _PartSheet:
    """The frame of one part and the picture in it, span by span in the order of writing.

    Lengths that need container units stand in `@supports` with a percentage before it: a value with
    `var()` is valid while it is read, so that a browser without those units would not fall back to
    an earlier declaration (CSS Variables 1, §3.1) but to 50 % 50 %.
    """

    def __init__(
        self,
        part: PartPlan,
        name: str,
        whole: bool,
        way: Way,
        blurred: bool,
        said: Collection[str] | None = None,
    ) -> None:
        """`said`: what other rules for the same elements say already, beside what is fixed."""
        inner = {"background": "::before", "svg": " svg"}.get(way, " img")
        self.frame, self.img, self.way = Declared(f".{name}"), Declared(f".{name}{inner}"), way
        self.css = {p.span.letter: _css_of(p, whole, blurred) for p in part.spans}
        all_css = self.css.values()
        self.sized = any(css.exact for css in all_css)
        self.idle = _idle([css.frame for css in all_css]) | set(said or ())
        self.exact: dict[str, str] = {}
        self.is_first = said is None
        self.said = said or ()

    def forget(self) -> None:
        """Nothing has been declared so far."""
        self.frame.before, self.img.before, self.exact = {}, {}, {}

    def rules(self, letter: str) -> list[CssRule]:
        css = self.css[letter]
        frame = {k: v for k, v in css.frame.items() if k not in self.idle}
        img = {k: v for k, v in css.img.items() if k not in self.said and self.way != "svg"}
        if self.way == "img":  # the frame is the picture itself
            return self.frame.rule(self.frame.changed({**frame, **img}))
        if self.is_first:
            sized = {"container-type": "size"} if self.sized else {}
            fixed = BACKGROUND_FIXED if self.way == "background" else _FIXED_IMG
            frame, img = {**_FIXED_FRAME, **sized, **frame}, {**fixed, **img}
        frame, changed = self.frame.changed(frame), self.img.changed(img)
        # a percentage has to win over the length before it
        if self.exact and not css.exact and self.way != "svg":
            changed["object-position"] = img["object-position"]
        anew = css.exact != self.exact or "object-position" in changed
        exact = css.exact if anew and self.way != "svg" else {}
        self.exact, self.is_first = css.exact, False
        held_by = f"held by {commented(', '.join(css.held_by))}" if css.held_by else ""
        if self.way == "background":
            changed, exact = as_background(changed), as_background(exact)
        rules = [*self.frame.rule(frame), *self.img.rule(changed)]
        return [*rules, *self.img.rule(exact, held_by, exact=True)]
