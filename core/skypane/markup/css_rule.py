"""Rules of a style sheet as they are written."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

#: What a browser has to know for lengths that are exact at every width.
NEEDED = "width: 1cqw"


class CssRule(NamedTuple):
    """A rule of the stylesheet; `exact` where it stands in `@supports`, `media` the conditions that
    it is for, `scripted` where it needs scripts."""

    selectors: tuple[str, ...]
    declarations: tuple[str, ...]
    exact: bool = False
    media: str = ""
    scripted: bool = False

    @property
    def lines(self) -> list[str]:
        selector = ",\n".join(self.selectors).split("\n")
        inner = [f"  {line}" for d in self.declarations for line in d.split("\n")]
        rule = [*selector[:-1], f"{selector[-1]} {{", *inner, "}"]
        for is_so, at in (
            (self.exact, f"supports ({NEEDED})"),
            (bool(self.media), f"media {self.media}"),
            (self.scripted, "media (scripting: enabled)"),
        ):
            if is_so:
                rule = [f"@{at} {{", *(f"  {line}" for line in rule), "}"]
        return rule


def shared(rules: Sequence[CssRule], first: str = "") -> list[CssRule]:
    """Of many parts, equal rules as one with all their selectors: frames, then pictures, then what
    is exact, so that each part's rules keep their order. Rules whose selector does not hold `first`
    stand before them, as they are."""
    alone = [r for r in rules if first not in r.selectors[0]]
    found: dict[CssRule, list[str]] = {}
    for r in rules:
        if first in r.selectors[0]:
            found.setdefault(r._replace(selectors=()), []).extend(r.selectors)
    merged = [r._replace(selectors=tuple(names)) for r, names in found.items()]
    return [*alone, *sorted(merged, key=lambda r: (r.exact, r.selectors[0].endswith(" img")))]


def holds_in(
    blocks: Sequence[Sequence[CssRule]], letters: Sequence[str]
) -> list[list[tuple[str, ...]]]:
    """In which spans each rule of each block still says something: in that of its block, `letters`
    in the order of writing, and in those after it until later rules have said all of it anew; none:
    in all."""
    holds: list[list[list[str]]] = [[[] for _ in rules] for rules in blocks]
    latest: dict[tuple[object, ...], tuple[int, int]] = {}
    for i, rules in enumerate(blocks):
        for n, r in enumerate(rules):
            for selector in r.selectors:
                for d in r.declarations:
                    name = d.partition(":")[0]
                    if not name.startswith("/*"):
                        latest[selector, name, r.exact, r.media, r.scripted] = (i, n)
            holds[i][n].append(letters[i])
        for j, n in set(latest.values()):
            if letters[i] not in holds[j][n]:
                holds[j][n].append(letters[i])
    return [
        [tuple(sorted(mine)) if len(mine) < len(letters) else () for mine in of] for of in holds
    ]


class Declared:
    """What has been declared for a selector so far; of more only what differs is written."""

    def __init__(self, selector: str) -> None:
        self.selector = selector
        self.before: dict[str, str] = {}

    def changed(self, declarations: dict[str, str]) -> dict[str, str]:
        out = {k: v for k, v in declarations.items() if self.before.get(k) != v}
        self.before = {**self.before, **declarations}
        return out

    def rule(
        self, declarations: dict[str, str], comment: str = "", *, exact: bool = False
    ) -> list[CssRule]:
        if not declarations:
            return []
        said = [f"/* {comment} */"] if comment else []
        said += [f"{k}: {v};" for k, v in declarations.items()]
        return [CssRule((self.selector,), tuple(said), exact)]


def commented(text: str) -> str:
    """Text that cannot end a CSS comment."""
    return text.replace("*/", "* /")
