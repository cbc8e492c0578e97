"""What is wrong or wasteful in a placement, by one function per rule."""

from __future__ import annotations

from skypane.files.renditions import renditions
from skypane.files.rows import FileRow, file_rows
from skypane.findings import aim, beside, code, files, frame, items, logo, slides, words
from skypane.findings.rule import RULES, Case, Rule, rule
from skypane.model import Finding
from skypane.shown.plan import Plan
from skypane.shown.sets import Siblings
from skypane.shown.under import Pixels, no_pixels

__all__ = ["RULES", "Case", "Rule", "documentation", "findings", "findings_of", "rule"]

#: The order in which findings are told: what has to be said first, then step by step.
ORDER = [
    module.__name__ for module in (frame, aim, words, items, slides, beside, logo, files, code)
]
RULES.sort(key=lambda rule: ORDER.index(rule.look.__module__))


def findings_of(
    plan: Plan, pixels: Pixels = no_pixels, siblings: Siblings = tuple
) -> list[Finding]:
    """What is wrong or wasteful in a computed placement. Whether words can be read is known only
    where `pixels` gives the px of its originals."""
    return findings(plan, file_rows(renditions(plan), {}), pixels, siblings)


def findings(
    plan: Plan,
    rows: tuple[FileRow, ...],
    pixels: Pixels = no_pixels,
    siblings: Siblings = tuple,
) -> list[Finding]:
    """The same where the files are known already: part by part, then what the layout itself has to
    say."""
    of_part: dict[int, list[FileRow]] = {}
    for row in rows:
        of_part.setdefault(row.part, []).append(row)
    found = [
        Finding(
            rule=each.id,
            severity=each.severity,
            step=each.step,
            part=part.index,
            spans=spans,
            sentence=sentence,
            remedy=each.remedy,
        )
        for part in plan.parts
        for case in [Case(plan, part, tuple(of_part.get(part.index, ())), pixels, siblings)]
        for each in RULES
        for spans, sentence in each.look(case)
    ]
    return [*found, *plan.layout.findings(plan.spots)]


def documentation() -> str:
    """The page that tells of all rules, in Markdown."""
    lines = [
        "# Findings",
        "",
        "What Sky Pane looks for. Written from the rules themselves:",
        "`python -m skypane.findings > docs/findings.md`.",
        "",
        "*Wrong*: visitors get less than was meant. *Unfinished*: somebody still has to say"
        " something.",
        "*Wasteful*: visitors pay for what they do not see.",
    ]
    for each in RULES:
        step = each.step.capitalize()
        lines += ["", f"## {each.id}", "", f"{step} · {each.severity}", "", each.about, ""]
        lines += [f"Remedy: {each.remedy}"]
    return "\n".join(lines) + "\n"
