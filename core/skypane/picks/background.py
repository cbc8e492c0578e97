"""Which file a browser takes for the background of an element (CSS Cascade 5 §6; CSS Images 4 §4
`image-set()`; Media Queries 4).

Of all rules for one selector whose conditions hold the last one that says `background-image` wins;
of several in one rule the last that the browser understands. Of an `image-set()` the entries whose
`type()` is not supported are left out, and of the rest one is taken by density, as of a `srcset`
(docs/engines.md).
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import tinycss2

from skypane.picks.choose import Pick, Reason, least_sufficient
from skypane.picks.engines import device_density
from skypane.picks.media import Environment, media_matches
from skypane.picks.values import float32

#: No style sheet nests rules deeper than this.
MOST_DEEP = 40


@dataclass(frozen=True)
class ImageRule:
    """What one rule says of a background: under which conditions, all of which have to hold, and
    the values in the order in which they stand there, as nodes of CSS."""

    media: tuple[str, ...]
    values: tuple[tuple[Any, ...], ...]

    @property
    def label(self) -> str:
        return " and ".join(self.media) or "the rule without a condition"


@lru_cache(maxsize=64)
def read_background(css: str, selector: str) -> tuple[ImageRule, ...]:
    """The rules of a style sheet that say `background-image` for exactly this selector, in their
    order."""
    rules = tinycss2.parse_stylesheet(css, skip_comments=True, skip_whitespace=True)
    return tuple(_rules(rules, selector, (), 0))


def _rules(
    nodes: Iterable[Any], selector: str, media: tuple[str, ...], depth: int
) -> Iterator[ImageRule]:
    if depth > MOST_DEEP:
        return
    for node in nodes:
        if node.content is None if node.type == "at-rule" else node.type != "qualified-rule":
            continue
        prelude = tinycss2.serialize(node.prelude).strip()
        inner = tinycss2.parse_blocks_contents(
            node.content, skip_comments=True, skip_whitespace=True
        )
        if node.type == "at-rule":
            around = (*media, prelude) if node.lower_at_keyword == "media" else media
            yield from _rules(inner, selector, around, depth + 1)
        elif selector in [s.strip() for s in prelude.split(",")]:
            said = [d for d in inner if d.type == "declaration"]
            values = tuple(tuple(d.value) for d in said if d.lower_name == "background-image")
            if values:
                yield ImageRule(media, values)


def pick_background(rules: Iterable[ImageRule], env: Environment) -> Pick:
    """What a browser takes in this environment, None where nothing is to be fetched."""
    trace: list[Reason] = []
    taken: ImageRule | None = None
    for rule in rules:
        failing = next((m for m in rule.media if not media_matches(m, env)), None)
        if failing is None:
            taken = rule
    if taken is None:
        trace.append(Reason("background", False, "no rule with a background holds"))
        return Pick(url=None, density=None, trace=tuple(trace))
    trace.append(Reason(taken.label, True, "the last rule that holds"))
    url, density = _image(taken.values[-1], env, trace)
    return Pick(url=url, density=density, trace=tuple(trace))


def _image(
    value: Iterable[Any], env: Environment, trace: list[Reason]
) -> tuple[str | None, float | None]:
    node = next((n for n in value if n.type != "whitespace"), None)
    if node is None or node.type == "ident":
        trace.append(Reason("background", False, "none: nothing is fetched"))
        return None, None
    if node.type == "url" or getattr(node, "lower_name", "") == "url":
        trace.append(Reason("background", True, "it is the only file"))
        return _url(node), 1.0
    number = float32 if env.engine.single else float
    first: dict[float, str] = {}
    for url, type_, density in _candidates(node.arguments):
        if type_ is not None and type_ not in env.taken_types:
            continue
        first.setdefault(number(density), url)
    if not first:
        trace.append(Reason("image-set()", False, "no type in it is supported"))
        return None, None
    ranked = sorted(first)
    asked = number(device_density(env.engine, env.density))
    density = ranked[least_sufficient(ranked, asked)]
    listed = ", ".join(f"{d:g}x" for d in ranked)
    trace.append(
        Reason("image-set()", True, f"{env.density:g}x asked of {listed}: {density:g}x is taken")
    )
    return first[density], density


def _candidates(nodes: Iterable[Any]) -> Iterator[tuple[str, str | None, float]]:
    """Address, type and density of each entry of an `image-set()`."""
    entry: list[Any] = []
    for node in [*nodes, None]:
        if node is not None and not (node.type == "literal" and node.value == ","):
            entry.append(node)
            continue
        url, type_, density = None, None, 1.0
        for part in entry:
            name = getattr(part, "lower_name", "")
            if part.type in ("url", "string") or name == "url":
                url = _url(part)
            elif name == "type":
                type_ = next(str(a.value).lower() for a in part.arguments if a.type == "string")
            elif part.type == "dimension":
                density = part.value
        if url is not None:
            yield url, type_, density
        entry = []


def _url(node: Any) -> str:
    if node.type in ("url", "string"):
        return str(node.value)
    return str(next(a.value for a in node.arguments if a.type == "string"))
