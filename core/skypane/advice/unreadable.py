"""What to do where words cannot be read, walked down from what changes least: a scrim, another
colour of the words, another place, a box, and at last the words below the picture. Every remedy is
tried over the whole span before it is told."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

import numpy as np
from pydantic import JsonValue

from skypane.advice.advised import WordsAdvice, advised, the
from skypane.advice.aside import with_layout
from skypane.advice.remedies import Remedy, fails, lays
from skypane.errors import InvalidPlan
from skypane.layouts import column_and_row
from skypane.model import Place
from skypane.numerals import number
from skypane.shown.clear import block_edges, covered, outgrown
from skypane.shown.nouns import SpanPlan
from skypane.shown.places import PlaceRating
from skypane.shown.readable import (
    EVEN,
    LeastScrim,
    Seen,
    least_scrim,
    plain_scrim,
    range_in_words,
    readable,
    unread,
)
from skypane.shown.under import Pixels
from skypane.words.contrast import ENOUGH, luminance_of, ratio_of

#: Words that are dark or light, where the present ones cannot be read.
DARK, LIGHT = "#10222b", "#ffffff"
#: Text is not made smaller than this by advice (common practice for body text on screens).
LEAST_TEXT_PX = 14.0


def unreadable(
    p: SpanPlan,
    pixels: Pixels,
    seen: tuple[Seen, ...],
    least: LeastScrim | None,
    places: tuple[PlaceRating, ...],
) -> WordsAdvice | None:
    wrong = list(unread(p, seen))
    if not wrong:
        return None
    s = min((w for w, _ in wrong), key=lambda w: float(w.worst.min()) / w.needed)
    at = np.unique(np.concatenate([columns for _, columns in wrong]))
    names = " and ".join(the(w.text.name) for w, _ in wrong)
    sentence = f"{names[:1].upper()}{names[1:]} cannot be read {range_in_words(p, at)}."
    worst = float(s.worst.min())
    size = "large" if s.text.large else "small"
    under_it = "its own colour" if s.text.fill else "the worst 5 % of what lies under it"
    why = (
        f"The contrast of {the(s.text.name)} on {under_it} is {worst:.1f} : 1; {size} text needs"
        f" {s.needed:g} : 1."
    )
    passing = [w for w in seen if w.passes and w.text.fill is None]
    if passing:
        ok = passing[0]
        why += f" {the(ok.text.name).capitalize()} passes ({float(ok.worst.min()):.1f}, needs"
        why += f" {ok.needed:g})."
    v = p.on_picture
    buttons = [_by_button(p)] if any(w.text.fill for w, _ in wrong) else []
    if all(w.text.fill for w, _ in wrong):
        return advised("unreadable", sentence, why, buttons)
    if v.shows != "on":
        return advised("unreadable", sentence, why, [_other_ink(p, pixels), *buttons])
    steps = [_by_scrim(least)]
    if least is not None and least.strength is None and least.scrim.kind == "linear":
        steps.append(_by_scrim(least_scrim(p, pixels, seen, plain_scrim(p))))
    steps += [_other_ink(p, pixels), by_place(p, pixels, places, "read")]
    steps += [_by_box(p, pixels), below(p, pixels), *buttons]
    return advised("unreadable", sentence, why, steps)


def _by_button(p: SpanPlan) -> Remedy:
    """Buttons have a colour of their own: their words in that of dark and light which it takes."""
    look = p.on_picture.button
    ink = max((DARK, LIGHT), key=lambda c: ratio_of(c, look.fill))
    word = "Dark" if ink == DARK else "Light"
    found = ratio_of(ink, look.fill)
    if found < ENOUGH:
        return fails("ink", f"Neither dark nor light words can be read on {look.fill}.")
    return lays(
        "ink",
        f"{word} words on the buttons have {found:.1f} : 1.",
        f"{word} words on buttons",
        {"button": look.model_copy(update={"ink": ink}).model_dump(mode="json")},
    )


def _by_scrim(least: LeastScrim | None) -> Remedy:
    if least is None:
        return fails("scrim", "Nothing lies under the words that a scrim could change.")
    if least.strength is None:
        best = f"{number(round(least.best * 100))} % of the contrast needed"
        return fails("scrim", f"No strength of it makes every width readable: at best {best}.")
    plain = "plain " if least.scrim.kind == "plain" else ""
    percent = f"{number(round(least.strength * 100))} %"
    said = least.scrim.model_dump(mode="json")
    return lays(
        "scrim",
        f"A {plain}scrim of {percent} makes every width readable; no less does.",
        f"{plain}scrim {percent}".capitalize(),
        {"scrim": said, "strength": least.strength},
        strength=least.strength,
    )


def _passes(p: SpanPlan, pixels: Pixels, said: dict[str, JsonValue]) -> bool:
    """Whether every text that lies on the picture can be read with other values."""
    try:
        return readable(with_layout(p, said), pixels)
    except InvalidPlan:
        return False


def _other_ink(p: SpanPlan, pixels: Pixels) -> Remedy:
    v = p.on_picture
    dark = luminance_of(v.colour) > EVEN
    ink, word = (DARK, "dark") if dark else (LIGHT, "light")
    bare: dict[str, JsonValue] = {"colour": ink, "scrim": {"kind": "none"}}
    if v.scrim.kind != "none" and _passes(p, pixels, bare):
        return lays(
            "ink",
            f"{word.capitalize()} words can be read without any scrim.",
            f"{word.capitalize()} words, no scrim",
            bare,
        )
    said: dict[str, JsonValue] = {"colour": ink}
    if _passes(p, pixels, said):
        return lays(
            "ink",
            f"{word.capitalize()} words can be read.",
            f"{word.capitalize()} words",
            said,
        )
    return fails("ink", f"{word.capitalize()} words cannot be read at every width either.")


def by_place(
    p: SpanPlan, pixels: Pixels, places: tuple[PlaceRating, ...], to: Literal["read", "clear"]
) -> Remedy:
    """Another place; where that alone does not do, aligned with it, narrower, and smaller, tried
    together from what changes least."""
    v = p.on_picture
    must_read = to == "read" or _passes(p, pixels, {})
    by_merit = sorted(places, key=lambda r: (not r.best, len(r.covers), -(r.contrast or 0)))
    for changed, more in enumerate(_changes(p)):
        for r in by_merit:
            if r.place == v.place and not changed:
                continue
            said: dict[str, JsonValue] = {"place": r.place, **more(r.place)}
            if not _serves(p, pixels, said, must_read):
                continue
            word = place_word(r.place)
            with_ = _with_words(said)
            move = f"Move them {word}" if r.place != v.place else "Keep them there"
            return lays(
                "place",
                f"{word.capitalize()}{with_} they are clear of the areas"
                f"{' and can be read' if must_read else ''} at every width.",
                f"{move}{with_}",
                said,
            )
    why = "read at every width" if to == "read" else "clear of the areas"
    return fails("place", f"In none of the nine places are they {why}, nor narrower or smaller.")


#: How much narrower and smaller words are tried.
_NARROWER, _SMALLER = 0.7, 0.85


def _changes(p: SpanPlan) -> list[Callable[[Place], dict[str, JsonValue]]]:
    """What can change together with the place, from the least on."""
    v = p.on_picture

    def aligned(place: Place) -> dict[str, JsonValue]:
        across, _ = column_and_row(place)
        align = {0.0: "start", 0.5: "centre", 1.0: "end"}[across]
        return {} if align == v.align else {"align": align}

    def narrower(place: Place) -> dict[str, JsonValue]:
        return {**aligned(place), "percent": max(5.0, round(v.percent * _NARROWER))}

    def smaller(place: Place) -> dict[str, JsonValue]:
        text = max(min(LEAST_TEXT_PX, v.text_px), round(v.text_px * _SMALLER, 1))
        heading = max(text, round(v.heading_px * _SMALLER, 1))
        sizes: dict[str, JsonValue] = {"heading_px": min(heading, v.heading_px), "text_px": text}
        return {**narrower(place), **sizes}

    return [lambda place: {}, aligned, narrower, smaller]


def _serves(p: SpanPlan, pixels: Pixels, said: dict[str, JsonValue], must_read: bool) -> bool:
    """Whether words lie clear, fit and can be read with other values; what is cheap is tried
    first."""
    try:
        q = with_layout(p, said)
        clear = not covered(q, block_edges(q)) and not outgrown(q).any()
        return clear and (not must_read or readable(q, pixels))
    except InvalidPlan:
        return False


def _with_words(said: dict[str, JsonValue]) -> str:
    aligned = {"start": "to the left", "centre": "centred", "end": "to the right"}
    told = [f"set {aligned[str(said['align'])]}"] if "align" in said else []
    told += [f"{said['percent']:g} % wide"] if "percent" in said else []
    told += [f"{said['heading_px']:g} px"] if "heading_px" in said else []
    return f", {', '.join(told)}" if told else ""


def place_word(place: str) -> str:
    """Where a place is, in words; start and end as one reads from left to right."""
    row, _, column = place.partition("-")
    if row in ("start", "end"):
        row, column = "middle", row
    down = {"top": "to the top", "middle": "to the middle", "bottom": "to the bottom"}[row]
    side = {"start": "left", "end": "right"}.get(column, "")
    return f"{down} {side}".strip() if row != "middle" or not side else f"to the {side}"


def _by_box(p: SpanPlan, pixels: Pixels) -> Remedy:
    v = p.on_picture
    colour = "#000000" if luminance_of(v.colour) > EVEN else "#ffffff"
    padding = max(v.box.padding_px, 16.0)

    def box(percent: int) -> dict[str, JsonValue]:
        behind: JsonValue = {"colour": colour, "strength": percent / 100, "padding_px": padding}
        return {"box": behind}

    if not _passes(p, pixels, box(100)):
        return fails("box", "Not even a box that hides the picture makes them readable.")
    low, high = 0, 20  # in steps of five per cent
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (low, middle) if _passes(p, pixels, box(5 * middle)) else (middle, high)
    percent = 5 * high
    return lays(
        "box",
        f"A box of {percent} % behind the words makes every width readable.",
        f"Box {percent} %",
        box(percent),
        strength=percent / 100,
    )


def below(p: SpanPlan, pixels: Pixels) -> Remedy:
    said = p.layout.words_below()
    background = p.ground
    ink = DARK if ratio_of(DARK, background) >= ratio_of(LIGHT, background) else LIGHT
    layout: dict[str, JsonValue] = {**said, "colour": ink}
    if not _passes(p, pixels, layout):
        return fails("below", f"Below the picture they cannot be read on {background} either.")
    return lays(
        "below",
        f"Below the picture they stand on its background colour, {background}.",
        "Words below",
        layout,
    )
