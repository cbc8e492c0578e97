"""What a stylesheet says about widths (CSS Syntax 3, Media Queries 4 §2 and §4).

A breakpoint is the last width of a span: `(max-width: 599px)`, `(min-width: 600px)`,
`(width < 600px)` and `(width >= 600px)` all say 599. em and rem in media queries are 16 px,
whatever the page's own size of type is (Media Queries 4 §1.3).
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator
from functools import partial
from typing import Any

import tinycss2

from skypane.found.nouns import Finds, Found, NothingFound

MOST_BYTES = 1_000_000
#: At-rules whose contents are rules like those around them.
_AROUND = frozenset({"media", "supports", "layer", "scope", "container", "starting-style"})
_GREATEST = frozenset({"max-width", "max-inline-size"})
_WIDTHS = frozenset({"width", "inline-size"})
_GAPS = frozenset({"gap", "column-gap", "grid-gap", "grid-column-gap"})
_INSETS = frozenset(
    {"padding", "padding-inline", "padding-left", "padding-right", "padding-inline-start"}
)
#: A greatest width below this holds no page (common practice).
LEAST_CONTAINER_PX = 320
_MOST_DEEP = 40
#: So many values are put in the place of var() in one stylesheet, a hundred for each rule of a
#: large one. Properties that name each other fan out beyond any bound.
_MOST_PUT_IN = 100_000

Node = Any


def found_in_css(text: str) -> Found:
    """The widths of media queries, greatest widths, gutters, margins and numbers of columns. Raises
    NothingFound."""
    size = len(text.encode("utf-8", "replace"))
    if size > MOST_BYTES:
        raise NothingFound(
            f"This stylesheet has {size / 1e6:.1f} MB; at most {MOST_BYTES // 1_000_000} MB are"
            " read. Give the part with its media queries."
        )
    if not text.strip():
        raise NothingFound("There is nothing to read. Paste a stylesheet or drop its file.")
    rules = tinycss2.parse_stylesheet(text, skip_comments=True, skip_whitespace=True)
    reader = _Reader()
    reader.custom = reader.properties(rules)
    reader.rules(rules, 0)
    found = reader.finds.taken(f"{reader.count} rule{'' if reader.count == 1 else 's'} of CSS")
    if not found.widths:
        if not reader.count:
            raise NothingFound("No rule of CSS can be read here. Is it a stylesheet?")
        raise NothingFound(
            f"In {found.read} there is no media query, greatest width or gutter in px, em or rem."
        )
    return found


class _Reader:
    def __init__(self) -> None:
        self.custom: dict[str, list[Node]] = {}
        self.finds, self.count = Finds(), 0
        self._put_in = 0
        self._parsed: dict[int, list[Node]] = {}

    def contents(self, block: Node) -> list[Node]:
        """Rules and declarations inside of a rule, parsed once."""
        found = self._parsed.get(id(block))
        if found is None:
            found = tinycss2.parse_blocks_contents(
                block.content, skip_comments=True, skip_whitespace=True
            )
            self._parsed[id(block)] = found
        return found

    def properties(self, nodes: Iterable[Node], depth: int = 0) -> dict[str, list[Node]]:
        """Custom properties as they are first set, anywhere."""
        out: dict[str, list[Node]] = {}
        if depth > _MOST_DEEP:
            return out
        for node in nodes:
            if node.type == "declaration" and node.name.startswith("--"):
                out.setdefault(node.name, node.value)
            elif node.type in ("at-rule", "qualified-rule") and node.content is not None:
                for name, value in self.properties(self.contents(node), depth + 1).items():
                    out.setdefault(name, value)
        return out

    def rules(self, nodes: Iterable[Node], depth: int) -> None:
        if depth > _MOST_DEEP:
            return
        for node in nodes:
            if node.type == "at-rule" and node.lower_at_keyword in _AROUND:
                if node.lower_at_keyword == "media":
                    self._media(node.prelude)
                if node.content is not None:
                    self.rules(self.contents(node), depth + 1)
            elif node.type == "qualified-rule":
                self.count += 1
                inside = self.contents(node)
                declared = [n for n in inside if n.type == "declaration"]
                self._declared(declared, partial(_written, node.prelude))
                self.rules((n for n in inside if n.type != "declaration"), depth + 1)

    def _media(self, prelude: Iterable[Node]) -> None:
        where = partial(_written, prelude, "@media ")
        for block in _blocks(prelude):
            for px in _posts(self._resolved(block.content)):
                self.finds.add("breakpoint", px, where)

    def _declared(self, declarations: list[Node], where: Callable[[], str]) -> None:
        holds = False
        insets: list[float] = []
        for d in declarations:
            name, value = d.lower_name, self._resolved(d.value)
            if name in _GREATEST or name in _WIDTHS:
                for px in _bounds(value, plain=name in _GREATEST):
                    if px >= LEAST_CONTAINER_PX:
                        holds = True
                        self.finds.add("container", px, where)
            elif name in _GAPS:
                lengths = _lengths(value)
                if lengths and lengths[-1] > 0:
                    self.finds.add("gutter", lengths[-1], where)
            elif name in _INSETS:
                lengths = _lengths(value)
                if lengths:  # of the shorthand of four sides the second is that at the side
                    insets.append(lengths[name == "padding" and len(lengths) > 1])
            elif name == "grid-template-columns":
                for n in _repeats(value):
                    self.finds.add("columns", n, where)
        if holds:
            for px in dict.fromkeys(i for i in insets if i > 0):
                self.finds.add("margin", px, where)

    def _resolved(self, nodes: Iterable[Node], depth: int = 0) -> list[Node]:
        """Values with custom properties in the place of var()."""
        out: list[Node] = []
        for node in nodes:
            if node.type == "function" and node.lower_name == "var" and depth < 6:
                names = [n.value for n in node.arguments if n.type == "ident"][:1]
                out += self._resolved(self.custom.get(names[0], []) if names else [], depth + 1)
            else:
                out.append(node)
            if depth:
                self._put_in += 1
                if self._put_in > _MOST_PUT_IN:
                    raise NothingFound(
                        "The custom properties of this stylesheet name each other so often that it"
                        " cannot be read. Give the part with its media queries."
                    )
        return out


def _written(nodes: Iterable[Node], before: str = "") -> str:
    return before + " ".join(tinycss2.serialize(nodes).split())


def _blocks(nodes: Iterable[Node], depth: int = 0) -> Iterator[Node]:
    """Everything in round brackets, the inner ones too."""
    for node in nodes:
        if node.type == "() block" and depth < _MOST_DEEP:
            yield node
            yield from _blocks(node.content, depth + 1)


def _px(node: Node) -> float | None:
    """A length in CSS px; None for what is none."""
    if node.type == "dimension" and math.isfinite(node.value):
        factor = {"px": 1.0, "em": 16.0, "rem": 16.0}.get(node.lower_unit)
        return None if factor is None else node.value * factor
    return 0.0 if node.type == "number" and node.value == 0 else None


def _lengths(nodes: Iterable[Node]) -> list[float]:
    return [px for n in nodes if (px := _px(n)) is not None]


def _posts(nodes: list[Node]) -> Iterator[float]:
    """Last widths that one feature of a media query names."""
    tokens = [n for n in nodes if n.type not in ("whitespace", "comment")]
    if tokens and tokens[0].type == "ident":
        name = tokens[0].lower_value
        if name in ("min-width", "max-width") and len(tokens) == 3 and tokens[1] == ":":
            px = _px(tokens[2])
            if px:
                yield _last(px, ">=" if name == "min-width" else "<=")
            return
    for i, token in enumerate(tokens):
        if token.type != "ident" or token.lower_value != "width":
            continue
        after = _comparison(tokens[i + 1 :])
        if after and len(tokens) > i + 1 + len(after):
            px = _px(tokens[i + 1 + len(after)])
            if px:
                yield _last(px, after)
        before = _comparison_before(tokens[:i])
        if before and i > len(before):
            px = _px(tokens[i - 1 - len(before)])
            if px:
                yield _last(px, before.translate(str.maketrans("<>", "><")))


def _comparison(tokens: list[Node]) -> str:
    """<, <=, > or >= at the start of tokens; "" where there is none."""
    if not tokens or tokens[0].type != "literal" or tokens[0].value not in "<>":
        return ""
    is_equal = len(tokens) > 1 and tokens[1].type == "literal" and tokens[1].value == "="
    return str(tokens[0].value) + ("=" if is_equal else "")


def _comparison_before(tokens: list[Node]) -> str:
    if len(tokens) > 1 and tokens[-1].type == "literal" and tokens[-1].value == "=":
        return _comparison(tokens[-2:])
    return _comparison(tokens[-1:]) if tokens else ""


def _last(px: float, comparison: str) -> float:
    """The last whole width before or at which a comparison with `width` changes."""
    if comparison in ("<=", ">"):
        return float(math.floor(px))
    return float(math.ceil(px) - 1)


def _bounds(nodes: Iterable[Node], *, plain: bool) -> Iterator[float]:
    """Greatest widths in a value: a plain length, or those in min() and at the end of clamp()."""
    for node in nodes:
        if plain and (px := _px(node)) is not None:
            yield px
        if node.type == "function" and node.lower_name in ("min", "clamp"):
            lengths = [px for n in node.arguments if (px := _px(n))]
            yield from lengths[-1:] if node.lower_name == "clamp" else lengths


def _repeats(nodes: Iterable[Node]) -> Iterator[int]:
    for node in nodes:
        if node.type == "function" and node.lower_name == "repeat":
            first = next((n for n in node.arguments if n.type != "whitespace"), None)
            n = first.int_value if first is not None and first.type == "number" else None
            if n is not None and 1 < n <= 24:
                yield n
