"""What CSS in an SVG refers to, read as a browser reads it (CSS Syntax 3): with its escapes, in any
case, in functions within functions. Nothing that is handed over refers to the outside."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from typing import Any

import tinycss2

#: A picture that is there itself; an SVG in it could refer to anything.
_PICTURE = re.compile(r"data:image/(?:png|jpeg|gif|webp|avif)[;,]", re.I)
#: Functions whose strings are addresses (CSS Images 4; CSS Values 5).
_WITH_ADDRESSES = frozenset(
    {"url", "src", "image", "image-set", "-webkit-image-set", "cross-fade", "-webkit-cross-fade"}
)
#: A typeface that is there itself.
_TYPEFACE = re.compile(r"data:(?:font/|application/(?:x-)?font-)", re.I)
#: Rules of a style sheet that say nothing but when or how what is in them holds. Others load
#: (`@import`) or have nothing to do in a drawing.
_PLAIN_RULES = frozenset({"media", "supports", "layer", "keyframes", "-webkit-keyframes"})


def is_inside(address: str) -> bool:
    """Whether an address is of the drawing itself, or a picture that it holds."""
    said = address.strip()
    return said.startswith("#") or bool(_PICTURE.match(said))


def reaches_out(value: str) -> bool:
    """Whether the value of a property or a presentation attribute refers to the outside."""
    if "(" not in value and "\\" not in value:
        return False
    tokens = tinycss2.parse_component_value_list(value, skip_comments=True)
    return not all(map(is_inside, _addresses(tokens)))


def _addresses(tokens: Iterable[Any], in_addresses: bool = False) -> Iterator[str]:
    for token in tokens:
        if token.type == "url" or (token.type == "string" and in_addresses):
            yield token.value
        elif token.type == "error":
            yield "what cannot be read"
        elif token.type == "function":
            asked = in_addresses or token.lower_name in _WITH_ADDRESSES
            yield from _addresses(token.arguments, asked)
        elif hasattr(token, "content") and token.content is not None:
            yield from _addresses(token.content, in_addresses)


def inside_declarations(text: str) -> str:
    """CSS declarations without those that refer to something outside."""
    return _declarations(tinycss2.parse_blocks_contents(text, skip_comments=True))


def _declarations(found: Iterable[Any]) -> str:
    good = [
        d for d in found if d.type == "declaration" and all(map(is_inside, _addresses(d.value)))
    ]
    return " ".join(f"{d.serialize()};" for d in good)


def inside_sheet(text: str) -> str:
    """A style sheet without what refers to something outside."""
    return _rules(tinycss2.parse_stylesheet(text, skip_comments=True, skip_whitespace=True))


def _rules(rules: Iterable[Any]) -> str:
    return "\n".join(said for rule in rules if (said := _rule(rule)))


def _rule(rule: Any) -> str:
    if rule.type == "qualified-rule":
        head = tinycss2.serialize(rule.prelude).strip()
        body = _declarations(tinycss2.parse_blocks_contents(rule.content, skip_comments=True))
        return f"{head} {{ {body} }}" if body else ""
    if rule.type == "at-rule" and rule.lower_at_keyword == "font-face":
        return _typeface(rule)
    if rule.type != "at-rule" or rule.lower_at_keyword not in _PLAIN_RULES or not rule.content:
        return ""
    if not all(map(is_inside, _addresses(rule.prelude))):
        return ""
    inner = _rules(tinycss2.parse_rule_list(rule.content, skip_comments=True, skip_whitespace=True))
    head = tinycss2.serialize(rule.prelude).strip()
    return f"@{rule.lower_at_keyword} {head} {{ {inner} }}" if inner else ""


def _typeface(rule: Any) -> str:
    """A typeface that the drawing holds; "" where it would be fetched."""
    found = tinycss2.parse_blocks_contents(rule.content or (), skip_comments=True)
    said = [d for d in found if d.type == "declaration"]
    named = [address for d in said for address in _addresses(d.value)]
    if not named or not all(_TYPEFACE.match(address.strip()) for address in named):
        return ""
    return f"@font-face {{ {' '.join(f'{d.serialize()};' for d in said)} }}"
