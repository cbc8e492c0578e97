"""What is wrong or wasteful in a placement, by one function per rule."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import NamedTuple
from weakref import WeakKeyDictionary

from skypane.files.groups import Group
from skypane.files.renditions import Files, renditions
from skypane.findings import general as _general  # noqa: F401  # makes its rules known
from skypane.findings.rule import Case, Rule, put_together, rule, rules
from skypane.model import Finding, Rendition
from skypane.model.condition import when_words
from skypane.shown.nouns import PartPlan, Plan, Setting
from skypane.shown.sets import Siblings
from skypane.shown.under import Pixels, no_pixels

__all__ = ["Case", "Rule", "documentation", "findings", "findings_of", "rule", "rules"]


def findings_of(
    plan: Plan, pixels: Pixels = no_pixels, siblings: Siblings = tuple
) -> list[Finding]:
    """What is wrong or wasteful in a computed placement. Whether words can be read is known only
    where `pixels` gives the px of its originals."""
    return findings(plan, renditions(plan), pixels, siblings)


def findings(
    plan: Plan,
    files: Files,
    pixels: Pixels = no_pixels,
    siblings: Siblings = tuple,
    made: Mapping[str, int] | None = None,
) -> list[Finding]:
    """What is wrong where the files are known already, part by part. `made` gives the bytes of
    those that exist, by key."""
    of_part: dict[int, list[tuple[Group, tuple[Rendition, ...]]]] = {}
    for group, mine in files:
        of_part.setdefault(group.part, []).append((group, mine))
    found: list[Finding] = []
    seen = _seen(plan)
    for part in plan.parts:
        case = Case(plan, part, tuple(of_part.get(part.index, ())), pixels, siblings, made or {})
        # the first part speaks for the placement, and of one of few a rule may look at the others
        alone = plan.layout.is_large and part.index > 0
        found += _kept(part, seen, case) if alone else _looked(case)
    return [*found, *_under(plan, pixels, siblings, found)]


def _under(
    plan: Plan, pixels: Pixels, siblings: Siblings, usual: Sequence[Finding]
) -> Iterator[Finding]:
    """What is wrong under conditions alone with what is otherwise then, the fewest conditions
    first: what is so as usual, or under fewer, is not told again."""
    rules_ = [r for r in rules() if r.under and r.kind in ("", plan.layout.kind)]
    known = [(f.when, _what(f)) for f in usual]
    for when, there in plan.under.items():
        case = Case(there, there.parts[0], (), pixels, siblings)
        for each in _looked(case, rules_):
            if not any(set(w) <= set(when) and what == _what(each) for w, what in known):
                known.append((when, _what(each)))
                said = f"{each.sentence[:1].lower()}{each.sentence[1:]}"
                sentence = f"{when_words(when).capitalize()} {said}"
                yield each.model_copy(update={"when": when, "sentence": sentence})


def _what(finding: Finding) -> tuple[str, tuple[str, ...], str]:
    return finding.rule, finding.spans, finding.sentence


class _Seen(NamedTuple):
    """Which of many items show in every span: what a rule may look at beside the item itself, its
    files and its setting. Compared by identity: equal ones of a setting are one."""

    shown: tuple[tuple[int, ...], ...]


_last_seen: WeakKeyDictionary[Setting, _Seen] = WeakKeyDictionary()


def _seen(plan: Plan) -> _Seen:
    found, last = _Seen(tuple(tuple(s.shown) for s in plan.spots)), _last_seen.get(plan.setting)
    if last is not None and last == found:
        return last
    _last_seen[plan.setting] = found
    return found


_Known = tuple[_Seen, Files, tuple[int | None, ...], list[Finding]]
_known: WeakKeyDictionary[PartPlan, _Known] = WeakKeyDictionary()


def _kept(part: PartPlan, seen: _Seen, case: Case) -> list[Finding]:
    """The findings of a part for as long as neither it nor its files and their bytes change, nor
    which items show."""
    known = _known.get(part)
    made = tuple(case.made.get(r.key) for _, mine in case.files for r in mine)
    if known is None or known[0] is not seen or known[1:3] != (case.files, made):
        known = seen, case.files, made, _looked(case)
        _known[part] = known
    return known[3]


def _looked(case: Case, by: Sequence[Rule] | None = None) -> list[Finding]:
    return [
        Finding(
            rule=each.id,
            severity=each.severity,
            step=each.step,
            part=case.part.index,
            spans=told.letters,
            runs=told.runs if each.shows else (),
            sentence=told.sentence,
            remedy=each.remedy,
            at=each.at,
            when=case.part.part.when,
        )
        for each in (rules() if by is None else by)
        if each.kind in ("", case.plan.layout.kind)
        for told in put_together(each.look(case))
    ]


def documentation() -> str:
    """The page that tells of all rules of this package, in Markdown."""
    lines = [
        "# Findings",
        "",
        "What Sky Pane looks for. Written from the rules themselves:",
        "`python -m skypane.findings > docs/findings.md`.",
        "",
        "*Wrong*: visitors get less than was meant. *Unfinished*: somebody still has to say"
        " something.",
        "*Wasteful*: visitors pay for what they do not see. *rules §4* is section 4 of"
        " [rules.md](rules.md).",
    ]
    for each in rules():
        if not each.look.__module__.startswith("skypane."):
            continue
        step = each.step.capitalize()
        lines += ["", f"## {each.id}", "", f"{step} · {each.severity}", "", each.about, ""]
        lines += [f"Remedy: {each.remedy}"]
    return "\n".join(lines) + "\n"
