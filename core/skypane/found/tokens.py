"""Dimension tokens of a design-tokens file (Design Tokens Community Group of the W3C, Format
Module 2025.10, §8.2 “Dimension”, §6.4 “Type inheritance”, §7 “Aliases”)."""

from __future__ import annotations

import json
import math
import re
from collections.abc import Iterator
from typing import Any

from skypane.found.nouns import Finds, Found, NothingFound, What
from skypane.numerals import whole

MOST_BYTES = 2_000_000
_MOST_DEEP = 40
#: What a token is for, by the words in its path (common practice).
_WORDS: tuple[tuple[What, str], ...] = (
    ("breakpoint", r"break-?point|screen|viewport|media|\bbp\b"),
    ("gutter", r"gutter|gap"),
    ("margin", r"margin|inset|edge"),
    ("container", r"container|content|max-?width|measure|page"),
)
_TEXT = re.compile(r"^\s*(-?\d+(?:\.\d+)?)\s*(px|rem)\s*$", re.IGNORECASE)
_ALIAS = re.compile(r"^\{([^{}]+)\}$")


def found_in_tokens(text: str) -> Found:
    """The dimension tokens of a file, with the path of each. Raises NothingFound."""
    if len(text.encode("utf-8", "replace")) > MOST_BYTES:
        raise NothingFound("This file has more than 2 MB, which no file of tokens needs.")
    try:
        data = json.loads(text.lstrip("\ufeff"), parse_int=whole)
    except json.JSONDecodeError as error:
        raise NothingFound(
            f"These tokens are no JSON: {error.msg.lower()}, line {error.lineno}, column"
            f" {error.colno}."
        ) from None
    except RecursionError:
        raise NothingFound("These tokens are nested too deeply to be read.") from None
    if not isinstance(data, dict):
        raise NothingFound("A file of tokens is an object of groups. This one holds a list.")
    finds, count = Finds(), 0
    for path, value, type_ in _tokens(data, (), None):
        count += 1
        resolved, kind = _resolved(data, value, type_)
        px = _px(resolved)
        if px is not None and kind in ("dimension", None):
            finds.add(_what(path), px, ".".join(path))
    if not count:
        raise NothingFound("No token is in this file: none of its entries has a $value.")
    found = finds.taken(f"{count} token{'' if count == 1 else 's'}")
    if not found.widths:
        raise NothingFound(f"None of the {count} tokens is a dimension in px or rem.")
    return found


def _tokens(
    node: dict[str, Any], path: tuple[str, ...], type_: str | None
) -> Iterator[tuple[tuple[str, ...], Any, str | None]]:
    """Every token as (path, value, type), which its groups may say."""
    type_ = node["$type"] if isinstance(node.get("$type"), str) else type_
    if "$value" in node:
        yield path, node["$value"], type_
        return
    if len(path) >= _MOST_DEEP:
        return
    for name, inner in node.items():
        if isinstance(inner, dict) and not name.startswith("$"):
            yield from _tokens(inner, (*path, name), type_)


def _resolved(root: dict[str, Any], value: Any, type_: str | None) -> tuple[Any, str | None]:
    """An alias followed to its value, and the type that is found there."""
    for _ in range(_MOST_DEEP):
        found = _ALIAS.match(value) if isinstance(value, str) else None
        if found is None:
            return value, type_
        node: Any = root
        for name in found[1].split("."):
            if not isinstance(node, dict) or name not in node:
                return None, None
            node = node[name]
            if isinstance(node, dict) and isinstance(node.get("$type"), str):
                type_ = node["$type"]
        value = node.get("$value") if isinstance(node, dict) else None
    return None, None


def _px(value: Any) -> float | None:
    if isinstance(value, str) and (text := _TEXT.match(value)):
        value = {"value": float(text[1]), "unit": text[2].lower()}
    if not isinstance(value, dict) or not isinstance(value.get("value"), int | float):
        return None
    factor = {"px": 1.0, "rem": 16.0}.get(str(value.get("unit")))
    px = None if factor is None else float(value["value"]) * factor
    return px if px is not None and math.isfinite(px) and 0 < px <= 20_000 else None


def _what(path: tuple[str, ...]) -> What:
    said = ".".join(path)
    return next((w for w, words in _WORDS if re.search(words, said, re.IGNORECASE)), "length")
