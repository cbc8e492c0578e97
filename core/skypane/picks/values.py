"""CSS lengths, numbers, resolutions and math functions as `sizes` and media queries use them (CSS
Values 4, §6 and §10).

Both attributes are read outside of any style sheet, so em and rem are the initial font size, 16 px.
"""

from __future__ import annotations

import math
import struct
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal

from skypane.picks.engines import STANDARD, Engine

Node = Any  # a component value of tinycss2, which carries no types

Dimension = Literal["number", "length", "angle", "resolution"]

_FONT_PX = 16.0
_ABSOLUTE = {
    "px": 1.0,
    "cm": 96 / 2.54,
    "mm": 96 / 25.4,
    "q": 96 / 101.6,
    "in": 96.0,
    "pt": 96 / 72,
    "pc": 16.0,
    "em": _FONT_PX,
    "rem": _FONT_PX,
    "ic": _FONT_PX,
    "ric": _FONT_PX,
    "ex": _FONT_PX / 2,
    "rex": _FONT_PX / 2,
    "ch": _FONT_PX / 2,
    "rch": _FONT_PX / 2,
    "cap": _FONT_PX * 0.7,
    "rcap": _FONT_PX * 0.7,
    "lh": _FONT_PX * 1.2,
    "rlh": _FONT_PX * 1.2,
}
_ANGLES = {"deg": math.pi / 180, "grad": math.pi / 200, "rad": 1.0, "turn": 2 * math.pi}
_RESOLUTIONS = {"dppx": 1.0, "x": 1.0, "dpi": 1 / 96, "dpcm": 2.54 / 96}
#: Brackets deeper than this are no value anybody wrote; CSS leaves such limits to the browser (CSS
#: Syntax 3, §2.2).
MOST_NESTED = 32


@dataclass(frozen=True)
class Quantity:
    value: float
    dimension: Dimension


@dataclass(frozen=True)
class Reference:
    """What relative units refer to, in CSS px."""

    width: float
    height: float
    engine: Engine = STANDARD


class NotAValue(ValueError):
    """The tokens are no value of the wanted kind."""


def unit_quantity(value: float, unit: str, ref: Reference) -> Quantity:
    u = unit.lower()
    if u == "vw":
        return Quantity(value * ref.width / 100, "length")
    if u in _ABSOLUTE:
        return Quantity(value * _ABSOLUTE[u], "length")
    if u in _ANGLES:
        return Quantity(value * _ANGLES[u], "angle")
    if u in _RESOLUTIONS:
        # Chromium rounds dpcm to a hundredth of a dppx (seen)
        scaled = value * _RESOLUTIONS[u]
        return Quantity(
            round(scaled, 2) if u == "dpcm" and ref.engine.rounds_dpcm else scaled, "resolution"
        )
    base = u[1:] if u[:1] in "sld" and u[1:] in ("vw", "vh", "vi", "vb", "vmin", "vmax") else u
    base = "v" + base[2:] if base in ("cqw", "cqh", "cqi", "cqb", "cqmin", "cqmax") else base
    relative = {
        "vw": ref.width,
        "vi": ref.width,
        "vh": ref.height,
        "vb": ref.height,
        "vmin": min(ref.width, ref.height),
        "vmax": max(ref.width, ref.height),
    }
    if base in relative:
        return Quantity(value * relative[base] / 100, "length")
    raise NotAValue(f"unknown unit {unit}")


_FLOAT32 = struct.Struct("f")


def float32(value: float) -> float:
    """The nearest 32-bit float, in which browsers compare densities, resolutions and ratios;
    infinite beyond its range."""
    try:
        return _FLOAT32.unpack(_FLOAT32.pack(value))[0]  # type: ignore[no-any-return]
    except OverflowError:
        return math.copysign(math.inf, value)


def significant(nodes: list[Node]) -> list[Node]:
    return [n for n in nodes if n.type not in ("whitespace", "comment")]


def length(node: Node, ref: Reference) -> float:
    """A length in CSS px from one component value. Raises NotAValue. A math function's result may
    be negative."""
    q = quantity(node, ref)
    if q.dimension == "length":
        # CSS Values 4, §10.9.1
        return 0.0 if math.isnan(q.value) else min(q.value, ref.engine.greatest_px)
    if q.dimension == "number" and node.type == "number" and q.value == 0:
        return 0.0
    raise NotAValue("not a length")


def quantity(node: Node, ref: Reference, depth: int = 0) -> Quantity:
    if node.type == "number":
        return Quantity(float(node.value), "number")
    if node.type == "dimension":
        return unit_quantity(float(node.value), node.unit, ref)
    if node.type == "function":
        return _function(node, ref, depth + 1)
    raise NotAValue(f"{node.type} is no value")


# -- math functions --------------------------------------------------------------------


def _function(node: Node, ref: Reference, depth: int) -> Quantity:
    name = node.lower_name
    if ref.engine.math is not None and name not in ref.engine.math:
        raise NotAValue(f"{name}() is not taken here by {ref.engine.name}")
    if depth > MOST_NESTED:
        raise NotAValue("too deeply nested")
    args = _split(node.arguments, ",")
    if name == "round" and args and _strategy(args[0]):
        strategy, args = _strategy(args[0]), args[1:]
    else:
        strategy = "nearest"
    if name == "clamp" and len(args) == 3 and ref.engine.constants:
        low, mid, high = (None if _is_none(a) else _sum(a, ref, depth) for a in args)
        if mid is None:
            raise NotAValue("clamp() needs a middle")
        present = [q for q in (low, mid, high) if q is not None]
        dim = _same(present)
        value = mid.value if high is None else min(mid.value, high.value)
        return Quantity(value if low is None else max(low.value, value), dim)
    values = [_sum(a, ref, depth) for a in args]
    match name, len(values):
        case "calc", 1:
            return values[0]
        case (("min" | "max"), n) if n >= 1:
            pick = min if name == "min" else max
            return Quantity(pick(q.value for q in values), _same(values))
        case "clamp", 3:
            low, mid, high = values
            return Quantity(max(low.value, min(mid.value, high.value)), _same(values))
        case "abs", 1:
            return Quantity(abs(values[0].value), values[0].dimension)
        case "sign", 1:
            return Quantity(math.copysign(1, values[0].value) if values[0].value else 0.0, "number")
        case "hypot", n if n >= 1:
            return Quantity(_ieee(math.hypot, *(q.value for q in values)), _same(values))
        case "round", (1 | 2):
            step = values[1] if len(values) == 2 else Quantity(1, "number")
            return Quantity(
                _round(strategy or "nearest", values[0].value, step.value), _same([values[0], step])
            )
        case (("mod" | "rem"), 2):
            a, b = values[0].value, values[1].value
            if b == 0:
                raise NotAValue("division by zero")
            return Quantity(_ieee(_modulus if name == "mod" else math.fmod, a, b), _same(values))
        case (("sqrt" | "exp"), 1):
            return Quantity(_ieee(getattr(math, name), _number(values[0])), "number")
        case "pow", 2:
            return Quantity(_ieee(math.pow, _number(values[0]), _number(values[1])), "number")
        case "log", (1 | 2):
            return Quantity(_ieee(math.log, *(_number(q) for q in values)), "number")
        case (("sin" | "cos" | "tan"), 1):
            if values[0].dimension not in ("number", "angle"):
                raise NotAValue("not an angle")
            return Quantity(_ieee(getattr(math, name), values[0].value), "number")
        case (("asin" | "acos" | "atan"), 1):
            return Quantity(_ieee(getattr(math, name), _number(values[0])), "angle")
        case "atan2", 2:
            _same(values)
            return Quantity(math.atan2(values[0].value, values[1].value), "angle")
    raise NotAValue(f"{name}() with {len(values)} values")


def _ieee(function: Callable[..., float], *values: float) -> float:
    """A function with the results of IEEE 754 where Python raises: what overflows is infinite, what
    has no value is NaN."""
    try:
        return float(function(*values))
    except OverflowError:
        return math.inf
    except (ValueError, ZeroDivisionError):
        return -math.inf if function is math.log and values[0] == 0 else math.nan


def _modulus(a: float, b: float) -> float:
    return a - b * math.floor(a / b)


def _strategy(nodes: list[Node]) -> str | None:
    s = significant(nodes)
    if (
        len(s) == 1
        and s[0].type == "ident"
        and s[0].lower_value in ("nearest", "up", "down", "to-zero")
    ):
        return str(s[0].lower_value)
    return None


def _round(strategy: str, value: float, step: float) -> float:
    if step == 0:
        raise NotAValue("division by zero")
    ratio = value / step
    how: dict[str, Callable[[float], int]] = {
        "nearest": lambda r: math.floor(r + 0.5),
        "up": math.ceil,
        "down": math.floor,
        "to-zero": math.trunc,
    }
    return float(how[strategy](ratio)) * step if math.isfinite(ratio) else ratio * step


def _is_none(nodes: list[Node]) -> bool:
    s = significant(nodes)
    return len(s) == 1 and s[0].type == "ident" and s[0].lower_value == "none"


def _number(q: Quantity) -> float:
    if q.dimension != "number":
        raise NotAValue("not a number")
    return q.value


def _same(values: list[Quantity]) -> Dimension:
    kinds = {q.dimension for q in values}
    if len(kinds) != 1:
        raise NotAValue("unlike units")
    return kinds.pop()


def _split(nodes: list[Node], separator: str) -> list[list[Node]]:
    parts: list[list[Node]] = [[]]
    for node in nodes:
        if node.type == "literal" and node.value == separator:
            parts.append([])
        else:
            parts[-1].append(node)
    return parts


def _trim(nodes: list[Node]) -> list[Node]:
    out = [n for n in nodes if n.type != "comment"]
    while out and out[0].type == "whitespace":
        out.pop(0)
    while out and out[-1].type == "whitespace":
        out.pop()
    return out


def _sum(nodes: list[Node], ref: Reference, depth: int) -> Quantity:
    """product [ ws (+|-) ws product ]* — the white space on both sides is required."""
    nodes = _trim(nodes)
    operands: list[list[Node]] = [[]]
    signs = [1]
    for i, node in enumerate(nodes):
        if (
            node.type == "literal"
            and node.value in "+-"
            and 0 < i < len(nodes) - 1
            and nodes[i - 1].type == "whitespace"
            and nodes[i + 1].type == "whitespace"
        ):
            signs.append(1 if node.value == "+" else -1)
            operands.append([])
        else:
            operands[-1].append(node)
    terms = [_product(o, ref, depth) for o in operands]
    return Quantity(sum(s * t.value for s, t in zip(signs, terms, strict=True)), _same(terms))


def _product(nodes: list[Node], ref: Reference, depth: int) -> Quantity:
    parts = significant(nodes)
    if len(parts) % 2 == 0:
        raise NotAValue("an operand is missing")
    result = _operand(parts[0], ref, depth)
    for op, node in zip(parts[1::2], parts[2::2], strict=True):
        right = _operand(node, ref, depth)
        if op.type == "literal" and op.value == "*":
            if "number" not in (result.dimension, right.dimension):
                raise NotAValue("a length times a length")
            dim = right.dimension if result.dimension == "number" else result.dimension
            result = Quantity(result.value * right.value, dim)
        elif op.type == "literal" and op.value == "/":
            if right.dimension != "number" or (right.value == 0 and ref.engine.finite_math):
                raise NotAValue("division by a length or by zero")
            quotient = (
                result.value / right.value if right.value else math.copysign(math.inf, result.value)
            )
            result = Quantity(quotient, result.dimension)
        else:
            raise NotAValue("unexpected token")
    return result


_CONSTANTS = {
    "pi": math.pi,
    "e": math.e,
    "infinity": math.inf,
    "-infinity": -math.inf,
    "nan": math.nan,
}


def _operand(node: Node, ref: Reference, depth: int) -> Quantity:
    if node.type == "() block":
        if depth >= MOST_NESTED:
            raise NotAValue("too deeply nested")
        return _sum(node.content, ref, depth + 1)
    if node.type == "ident" and node.lower_value in _CONSTANTS and ref.engine.constants:
        return Quantity(_CONSTANTS[node.lower_value], "number")
    return quantity(node, ref, depth)
