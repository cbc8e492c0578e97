"""Media queries against one environment (Media Queries Level 4), in three-valued logic.

What the browser does not know is neither true nor false: `(foo) or (min-width: 1px)` holds, `not
(foo)` does not. A query that does not parse is `not all`; the other queries of its list survive.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import tinycss2

from skypane.picks.engines import ENGINES, Engine, Policy
from skypane.picks.values import (
    MOST_NESTED,
    Node,
    NotAValue,
    Quantity,
    Reference,
    float32,
    quantity,
    significant,
)


@dataclass(frozen=True)
class Environment:
    """A browser's window as markup sees it. Widths and heights in CSS px, density in device px per
    CSS px.

    `layout_width` is the content-box width of a lazily loaded image, which `sizes=auto` stands for;
    None: not known. Policies: `least-sufficient` (the standard, with the choice that current
    engines make), `chromium`, `firefox` and `webkit` (each with its departures from the standard)
    and `geometric` (older Chromium). `types`: the image types that are taken; None: those of the
    engine.
    """

    width: float
    height: float
    density: float = 1.0
    color_scheme: Literal["light", "dark"] = "light"
    reduced_motion: Literal["no-preference", "reduce"] = "no-preference"
    policy: Policy = "least-sufficient"
    layout_width: float | None = None
    types: frozenset[str] | None = None

    def in_engine(self, policy: Policy, types: frozenset[str] | None) -> Environment:
        """This environment in another engine, with the types that it takes."""
        found = object.__new__(Environment)
        found.__dict__.update(self.__dict__, policy=policy, types=types)
        return found

    @property
    def engine(self) -> Engine:
        return ENGINES[self.policy]

    @property
    def reference(self) -> Reference:
        return Reference(self.width, self.height, self.engine)

    @property
    def taken_types(self) -> frozenset[str]:
        return self.engine.types if self.types is None else self.types


Truth = bool | None
Evaluate = Callable[[Environment], Truth]


def media_matches(text: str, env: Environment) -> bool:
    """Whether a media query list holds; an empty one does."""
    return query_list(text)(env) is True


def condition_of(nodes: list[Node]) -> Evaluate:
    """A media *condition* (no media types), as `sizes` has them. Raises NotAValue where it does not
    parse."""
    return _condition(significant(nodes), allow_or=True, depth=0)


@lru_cache(maxsize=4096)
def query_list(text: str) -> Evaluate:
    nodes = tinycss2.parse_component_value_list(text)
    parts: list[list[Node]] = [[]]
    for node in nodes:
        if node.type == "literal" and node.value == ",":
            parts.append([])
        else:
            parts[-1].append(node)
    if len(parts) == 1 and not significant(parts[0]):
        return lambda env: True
    queries = []
    for part in parts:
        try:
            queries.append(_query(significant(part)))
        except NotAValue:
            queries.append(lambda env: False)
    return lambda env: any(q(env) is True for q in queries)


def _ident(node: Node) -> str | None:
    return str(node.lower_value) if node.type == "ident" else None


def _query(nodes: list[Node]) -> Evaluate:
    if not nodes:
        raise NotAValue("empty query")
    first = _ident(nodes[0])
    second = _ident(nodes[1]) if len(nodes) > 1 else None
    if first in ("not", "only") and second is not None:
        negate, rest = first == "not", nodes[1:]
    elif first is not None and first != "not":
        negate, rest = False, nodes
    else:
        return _condition(nodes, allow_or=True, depth=0)
    kind = _ident(rest[0])
    if kind in (None, "not", "only", "and", "or", "layer"):
        raise NotAValue("not a media type")
    holds = kind in ("all", "screen")
    condition: Evaluate = lambda env: True
    if len(rest) > 1:
        if _ident(rest[1]) != "and" or len(rest) < 3:
            raise NotAValue("a media type is followed by something else than and")
        condition = _condition(rest[2:], allow_or=False, depth=0)

    def evaluate(env: Environment) -> Truth:
        value = _and(holds, condition(env))
        return _not(value) if negate else value

    return evaluate


def _not(value: Truth) -> Truth:
    return None if value is None else not value


def _and(a: Truth, b: Truth) -> Truth:
    if a is False or b is False:
        return False
    return None if a is None or b is None else True


def _or(a: Truth, b: Truth) -> Truth:
    if a is True or b is True:
        return True
    return None if a is None or b is None else False


def _condition(nodes: list[Node], *, allow_or: bool, depth: int) -> Evaluate:
    if depth > MOST_NESTED:
        raise NotAValue("too deeply nested")
    if not nodes:
        raise NotAValue("empty condition")
    if _ident(nodes[0]) == "not":
        if len(nodes) != 2:
            raise NotAValue("not takes one bracket")
        inner = _in_parens(nodes[1], depth)
        return lambda env: _not(inner(env))
    terms = [_in_parens(nodes[0], depth)]
    joiner: str | None = None
    if len(nodes) % 2 == 0:
        raise NotAValue("and, or need a bracket on both sides")
    for joining, term in zip(nodes[1::2], nodes[2::2], strict=True):
        word = _ident(joining)
        if (
            word not in ("and", "or")
            or (word == "or" and not allow_or)
            or joiner not in (None, word)
        ):
            raise NotAValue("and, or cannot be mixed without brackets")
        joiner = word
        terms.append(_in_parens(term, depth))
    join = _or if joiner == "or" else _and

    def evaluate(env: Environment) -> Truth:
        value = terms[0](env)
        for term in terms[1:]:
            value = join(value, term(env))
        return value

    return evaluate


def _unknown(env: Environment) -> Truth:
    return None


def _in_parens(node: Node, depth: int) -> Evaluate:
    if node.type == "function":
        return _unknown
    if node.type != "() block":
        raise NotAValue("a bracket is missing")
    raw = [n for n in node.content if n.type != "comment"]
    content = significant(raw)
    if any(n.type == "error" for n in raw):
        raise NotAValue("stray bracket")
    if content and (content[0].type in ("() block", "function") or _ident(content[0]) == "not"):
        try:
            return _condition(content, allow_or=True, depth=depth + 1)
        except NotAValue:
            pass
    try:
        return _feature(raw)
    except NotAValue:
        return _unknown


# -- features --------------------------------------------------------------------------

_RANGE: dict[str, Callable[[Environment], float]] = {
    "width": lambda e: e.width,
    "height": lambda e: e.height,
    "device-width": lambda e: e.width,
    "device-height": lambda e: e.height,
    "aspect-ratio": lambda e: e.width / e.height if e.height else float("inf"),
    "device-aspect-ratio": lambda e: e.width / e.height if e.height else float("inf"),
    "resolution": lambda e: e.density,
    "-webkit-device-pixel-ratio": lambda e: e.density,
    "color": lambda e: 8,
    "color-index": lambda e: 0,
    "monochrome": lambda e: 0,
    "horizontal-viewport-segments": lambda e: 1,
    "vertical-viewport-segments": lambda e: 1,
}
_KIND = {
    "width": "length",
    "height": "length",
    "device-width": "length",
    "device-height": "length",
    "aspect-ratio": "ratio",
    "device-aspect-ratio": "ratio",
    "resolution": "resolution",
    "-webkit-device-pixel-ratio": "number",
}
_DISCRETE: dict[str, tuple[tuple[str, ...], Callable[[Environment], tuple[str, ...]]]] = {
    "orientation": (
        ("portrait", "landscape"),
        lambda e: ("portrait",) if e.height >= e.width else ("landscape",),
    ),
    "prefers-color-scheme": (("light", "dark"), lambda e: (e.color_scheme,)),
    "prefers-reduced-motion": (("no-preference", "reduce"), lambda e: (e.reduced_motion,)),
    "prefers-contrast": (("no-preference", "more", "less", "custom"), lambda e: ("no-preference",)),
    "prefers-reduced-transparency": (("no-preference", "reduce"), lambda e: ("no-preference",)),
    "forced-colors": (("none", "active"), lambda e: ("none",)),
    "hover": (("none", "hover"), lambda e: ("hover",)),
    "any-hover": (("none", "hover"), lambda e: ("hover",)),
    "pointer": (("none", "coarse", "fine"), lambda e: ("fine",)),
    "any-pointer": (("none", "coarse", "fine"), lambda e: ("fine",)),
    "update": (("none", "slow", "fast"), lambda e: ("fast",)),
    "overflow-block": (("none", "scroll", "paged"), lambda e: ("scroll",)),
    "overflow-inline": (("none", "scroll"), lambda e: ("scroll",)),
    "color-gamut": (("srgb", "p3", "rec2020"), lambda e: ("srgb",)),
    "dynamic-range": (("standard", "high"), lambda e: ("standard",)),
    "scripting": (("none", "initial-only", "enabled"), lambda e: ("enabled",)),
    "display-mode": (
        (
            "fullscreen",
            "standalone",
            "minimal-ui",
            "browser",
            "window-controls-overlay",
            "picture-in-picture",
        ),
        lambda e: ("browser",),
    ),
}
_FALSE_WORDS = ("none", "no-preference")


def _feature(raw: list[Node]) -> Evaluate:
    content = significant(raw)
    if not content:
        raise NotAValue("empty feature")
    name = _ident(content[0])
    if len(content) == 1:
        return _boolean(name)
    if name and content[1].type == "literal" and content[1].value == ":":
        return _plain(name, content[2:])
    return _range(raw)


def _boolean(name: str | None) -> Evaluate:
    if name in _RANGE:
        value = _RANGE[name]
        return lambda env: value(env) != 0
    if name == "grid":
        return lambda env: False
    if name in _DISCRETE:
        current = _DISCRETE[name][1]
        return lambda env: any(w not in _FALSE_WORDS for w in current(env))
    raise NotAValue("unknown feature")


def _plain(name: str, value: list[Node]) -> Evaluate:
    if name in _DISCRETE:
        words, current = _DISCRETE[name]
        word = _ident(value[0]) if len(value) == 1 else None
        if word not in words:
            raise NotAValue("unknown value")
        return lambda env: word in current(env)
    if name == "grid":
        if len(value) != 1 or value[0].type != "number" or value[0].int_value not in (0, 1):
            raise NotAValue("grid takes 0 or 1")
        wanted = value[0].int_value
        return lambda env: wanted == 0
    operator = "="
    for prefix, op in (
        ("min-", ">="),
        ("max-", "<="),
        ("-webkit-min-", ">="),
        ("-webkit-max-", "<="),
    ):
        if name.startswith(prefix):
            base = name.removeprefix(prefix)
            name, operator = ("-webkit-" + base if prefix.startswith("-webkit-") else base), op
            break
    if name not in _RANGE:
        raise NotAValue("unknown feature")
    return _compare(name, operator, _value(name, value))


def _range(raw: list[Node]) -> Evaluate:
    """`width <= 600px`, `400px < width`, `400px <= width < 900px` (Media Queries 4, §2.4.3)."""
    parts: list[list[Node]] = [[]]
    operators: list[str] = []
    i = 0
    while i < len(raw):
        node = raw[i]
        if node.type == "literal" and node.value in ("<", ">", "=", "<=", ">="):
            op = node.value
            follower = raw[i + 1] if i + 1 < len(raw) else None
            if (
                op in "<>"
                and follower is not None
                and follower.type == "literal"
                and follower.value == "="
            ):
                op += "="
                i += 1
            operators.append(op)
            parts.append([])
        else:
            parts[-1].append(node)
        i += 1
    sides = [significant(p) for p in parts]
    if not all(sides):
        raise NotAValue("a side is missing")

    def named(side: list[Node]) -> str | None:
        name = _ident(side[0]) if len(side) == 1 else None
        return name if name in _RANGE and not name.startswith("-webkit-") else None

    flipped = {"<": ">", ">": "<", "<=": ">=", ">=": "<=", "=": "="}
    if len(sides) == 2:
        if name := named(sides[0]):
            return _compare(name, operators[0], _value(name, sides[1]))
        if name := named(sides[1]):
            return _compare(name, flipped[operators[0]], _value(name, sides[0]))
    if len(sides) == 3 and (name := named(sides[1])):
        if operators[0][0] != operators[1][0] or operators[0][0] == "=":
            raise NotAValue("the two comparisons point different ways")
        low = _compare(name, flipped[operators[0]], _value(name, sides[0]))
        high = _compare(name, operators[1], _value(name, sides[2]))
        return lambda env: _and(low(env), high(env))
    raise NotAValue("not a range")


Value = Callable[[Environment], float]


def _value(name: str, nodes: list[Node]) -> Value:
    kind = _KIND.get(name, "number")
    if kind == "ratio":
        return _ratio(nodes)
    if len(nodes) != 1:
        raise NotAValue("one value is wanted")
    node = nodes[0]
    if name in ("color", "color-index", "monochrome") and (
        node.type != "number" or node.int_value is None
    ):
        raise NotAValue("a whole number is wanted")

    def value(env: Environment) -> float:
        q = quantity(node, env.reference)
        if kind == "length" and q == Quantity(0.0, "number") and node.type == "number":
            return 0.0
        if q.dimension != kind:
            raise NotAValue(f"a {kind} is wanted")
        return q.value

    always = value(Environment(100, 100))  # a wrong unit is one whatever the window
    # px are px in every window; what else there is may depend on it, or on the engine
    is_px = node.type == "dimension" and node.lower_unit == "px"
    return (lambda env: always) if is_px else value


def _ratio(nodes: list[Node]) -> Value:
    if len(nodes) == 1:
        over = nodes[0]
        under = None
    elif len(nodes) == 3 and nodes[1].type == "literal" and nodes[1].value == "/":
        over, under = nodes[0], nodes[2]
    else:
        raise NotAValue("not a ratio")

    def value(env: Environment) -> float:
        numbers = [quantity(n, env.reference) for n in (over, under) if n is not None]
        if any(q.dimension != "number" or q.value < 0 for q in numbers):
            raise NotAValue("a ratio is made of numbers")
        if len(numbers) == 1:
            return numbers[0].value
        return numbers[0].value / numbers[1].value if numbers[1].value else float("inf")

    value(Environment(100, 100))
    return value


def _compare(name: str, operator: str, wanted: Value) -> Evaluate:
    actual = _RANGE[name]
    is_length = _KIND.get(name) == "length"

    def evaluate(env: Environment) -> Truth:
        try:
            a, b = actual(env), wanted(env)
        except NotAValue:
            return None
        engine = env.engine
        slack = engine.length_slack_px if is_length else 0.0
        if not is_length:
            a, b = float32(a), float32(b)
        elif engine.length_grid_px is not None and math.isfinite(b):
            b = math.floor(b / engine.length_grid_px) * engine.length_grid_px
        match operator:
            case "<":
                return a < b
            case ">":
                return a > b
            case "<=":
                return a <= b + slack
            case ">=":
                return a >= b - slack
        return abs(a - b) <= slack

    return evaluate
