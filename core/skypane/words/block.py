"""The block of words as a browser lays it out: heading, text and buttons under each other, at every
width (CSS 2 §10.3.3 and §10.6.3, CSS Flexbox 1 for the buttons).

The measures are those of the delivered CSS, which `css_rules` writes from the same constants.
"""

from __future__ import annotations

from typing import Literal, NamedTuple, get_args

import numpy as np

from skypane.model import OnPicture, Typeface, Words
from skypane.numerals import number, px
from skypane.widths.frames import Floats
from skypane.words.contrast import is_large
from skypane.words.fallbacks import css_family
from skypane.words.lines import lines_at, longest_piece

#: Line heights, as multiples of the type size.
HEADING_LINE, TEXT_LINE, BUTTON_LINE = 1.15, 1.5, 1.25
HEADING_WEIGHT, TEXT_WEIGHT, BUTTON_WEIGHT = 700, 400, 600
#: Room above the text and above the buttons, and around a button's label, in em of the text.
ABOVE_TEXT, ABOVE_BUTTONS, BESIDE_LABEL, ABOVE_LABEL = 0.6, 1.2, 1.1, 0.55
BETWEEN_BUTTONS_PX = 12

TextKind = Literal["heading", "text", "button"]
#: A text by its place in `Words`; buttons are counted as they are written, empty ones too.
TextId = Literal["heading", "text", "button-1", "button-2"]
TEXT_IDS: tuple[TextId, ...] = get_args(TextId)
_BUTTONS: tuple[TextId, ...] = ("button-1", "button-2")


class TextBox(NamedTuple):
    """The content box of one text, relative to the block's border box; arrays are (widths,), in CSS
    px. `fill` is a button's own colour, which lies under its label."""

    kind: TextKind
    id: TextId
    name: str
    size_px: float
    weight: int
    ink: str
    fill: str | None
    x: Floats
    y: Floats
    w: Floats
    h: Floats
    lines: np.ndarray
    longest_px: float  # the widest piece that is not to be broken

    @property
    def large(self) -> bool:
        return is_large(self.size_px, self.weight)


class Block(NamedTuple):
    """The block's border box, (widths,) each, and the texts in it."""

    w: Floats
    h: Floats
    texts: tuple[TextBox, ...]


def block_of(words: Words, typeface: Typeface, values: OnPicture, area: Floats) -> Block:
    """The block in an area of these widths, in CSS px."""
    w = np.minimum(area * values.percent / 100, area - 2 * values.margin_px)
    padding = values.box.padding_px
    room = np.maximum(w - 2 * padding, 1.0)
    size = values.text_px
    y = np.full_like(w, padding)
    texts: list[TextBox] = []
    x = np.full_like(w, padding)

    def stacked(
        id_: Literal["heading", "text"], text: str, size_px: float, weight: int, line: float
    ) -> None:
        nonlocal y
        found = lines_at(typeface, weight, size_px, text, room)
        h = found.n * line * size_px
        long = longest_piece(typeface, weight, text) * size_px
        texts.append(
            TextBox(
                kind=id_,
                id=id_,
                name=id_.capitalize(),
                size_px=size_px,
                weight=weight,
                ink=values.colour,
                fill=None,
                x=x,
                y=y,
                w=room,
                h=h,
                lines=found.n,
                longest_px=long,
            )
        )
        y = y + h

    if words.heading.strip():
        stacked("heading", words.heading, values.heading_px, HEADING_WEIGHT, HEADING_LINE)
    if words.text.strip():
        y = y + (ABOVE_TEXT * size if texts else 0)
        stacked("text", words.text, size, TEXT_WEIGHT, TEXT_LINE)
    labels = {i: label for i, label in zip(_BUTTONS, words.labels, strict=False) if label.strip()}
    if labels:
        y = y + (ABOVE_BUTTONS * size if texts else 0)
        buttons, below = _buttons(labels, typeface, values, room)
        texts += [b._replace(x=padding + b.x, y=y + b.y) for b in buttons]
        y = y + below
    return Block(w, y + padding, tuple(texts))


def _buttons(
    labels: dict[TextId, str], typeface: Typeface, values: OnPicture, room: Floats
) -> tuple[list[TextBox], Floats]:
    """The labels' content boxes from the top of the row of buttons, and the height of all rows."""
    size = values.text_px
    across, down, gap = BESIDE_LABEL * size, ABOVE_LABEL * size, BETWEEN_BUTTONS_PX
    inner = np.maximum(room - 2 * across, 1.0)
    lines = [lines_at(typeface, BUTTON_WEIGHT, size, label, inner) for label in labels.values()]
    free = [
        float(lines_at(typeface, BUTTON_WEIGHT, size, label, np.array([1e6])).longest[0])
        for label in labels.values()
    ]
    widths = [np.minimum(f, inner) for f in free]
    outer = [np.minimum(f + 2 * across, room) for f in free]
    heights = [found.n * BUTTON_LINE * size + 2 * down for found in lines]
    in_a_row = np.ones(room.shape, dtype=bool)
    if len(labels) == 2:
        in_a_row = outer[0] + gap + outer[1] <= room + 1e-6
    lead = {"start": 0.0, "centre": 0.5, "end": 1.0}[values.align]
    out, offset, top = [], np.zeros_like(room), np.zeros_like(room)
    whole = sum(outer) + gap * (len(outer) - 1)
    high = np.maximum.reduce(heights)
    for i, (id_, label) in enumerate(labels.items()):
        alone = lead * (room - outer[i])
        x = np.where(in_a_row, lead * (room - whole) + offset, alone)
        out.append(
            TextBox(
                "button",
                id_,
                f"Button {i + 1}" if len(labels) > 1 else "Button",
                size,
                BUTTON_WEIGHT,
                values.button.ink,
                values.button.fill,
                x + across,
                np.where(in_a_row, 0.0, top) + down,
                widths[i],
                np.where(in_a_row, high, heights[i]) - 2 * down,
                lines[i].n,
                longest_piece(typeface, BUTTON_WEIGHT, label) * size,
            )
        )
        offset, top = offset + outer[i] + gap, top + heights[i] + gap
    stacked = sum(heights) + gap * (len(heights) - 1)
    return out, np.where(in_a_row, high, stacked)


_JUSTIFY = {"start": "start", "centre": "center", "end": "end"}


def css_rules(typeface: Typeface, values: OnPicture, level: int) -> dict[str, dict[str, str]]:
    """Declarations of the block and what is in it, by what follows the block's selector."""
    size = px(values.text_px)
    box = values.box
    return {
        "": {
            "box-sizing": "border-box",
            "width": f"{number(values.percent)}%",
            "max-width": f"calc(100% - {px(2 * values.margin_px)})",
            "margin": px(values.margin_px),
            "padding": px(box.padding_px),
            "color": values.colour,
            "background": rgb(box.colour, box.strength) if box.strength else "none",
            "font-family": css_family(typeface),
            "text-align": _JUSTIFY[values.align],
            "overflow-wrap": "anywhere",
            "text-rendering": "geometricPrecision",
            "-webkit-text-size-adjust": "100%",
            "text-size-adjust": "100%",
        },
        " > *": {"margin": "0"},
        f" h{level}": {
            "font-family": "inherit",
            "font-size": px(values.heading_px),
            "font-weight": str(HEADING_WEIGHT),
            "line-height": number(HEADING_LINE),
            "white-space": "pre-line",
        },
        " p": {
            "font-size": size,
            "font-weight": str(TEXT_WEIGHT),
            "line-height": number(TEXT_LINE),
            "white-space": "pre-line",
        },
        " * + p": {"margin-top": f"{number(ABOVE_TEXT)}em"},
        " ul": {
            "display": "flex",
            "flex-wrap": "wrap",
            "gap": px(BETWEEN_BUTTONS_PX),
            "justify-content": _JUSTIFY[values.align],
            "padding": "0",
            "list-style": "none",
            "font-size": size,
        },
        " * + ul": {"margin-top": f"{number(ABOVE_BUTTONS)}em"},
        " a": {
            "box-sizing": "border-box",
            "display": "block",
            "height": "100%",
            "padding": f"{number(ABOVE_LABEL)}em {number(BESIDE_LABEL)}em",
            "border-radius": "4px",
            "color": values.button.ink,
            "background": values.button.fill,
            "font-weight": str(BUTTON_WEIGHT),
            "line-height": number(BUTTON_LINE),
            "text-align": "center",
            "text-decoration": "none",
        },
    }


def rgb(colour: str, alpha: float = 1.0) -> str:
    """A colour with an opacity as CSS writes it."""
    r, g, b = channels(colour)
    return colour if alpha >= 1 else f"rgb({r} {g} {b} / {number(round(alpha, 4))})"


def channels(colour: str) -> tuple[int, int, int]:
    """The three channels of #rrggbb, 0 to 255."""
    return int(colour[1:3], 16), int(colour[3:5], 16), int(colour[5:7], 16)
