"""Whether the words of a banner can be read, at every width (rules §9; WCAG 2.2, 1.4.3).

Between two widths that are looked at the ratio is taken to run straight; widths at which lines
break otherwise are looked at on both sides, and where the verdict changes the width is found to the
px.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, MutableMapping
from dataclasses import replace
from typing import NamedTuple
from weakref import WeakKeyDictionary

import numpy as np
from numpy.typing import NDArray

from skypane.model import NoScrim, PlainScrim, Scrim
from skypane.shown.nouns import ShownSpan, SpanPlan
from skypane.shown.under import Pixels, Under, all_rows, at_widths, composited, under
from skypane.values import once
from skypane.widths.frames import Floats
from skypane.words.block import TextBox
from skypane.words.contrast import (
    contrast,
    least_strength,
    luminance,
    luminance_of,
    needed,
    ratio_of,
)

#: Widths of a span that are looked at first, and the most that are added to find where a verdict
#: changes.
FIRST_WIDTHS, MOST_ROUNDS = 9, 12
#: The luminance that black and white contrast with alike: √(1.05·0.05) − 0.05.
EVEN = 0.179
#: How many px of a text are looked at for that; what is found is then held against all.
FEWER_PX = 240


class Seen(NamedTuple):
    """The contrast of one text over a span. `columns` are the places of the widths that were looked
    at, ascending; `worst` and `mean` at the worst viewport height there."""

    text: TextBox
    columns: NDArray[np.int64]
    worst: Floats
    mean: Floats

    @property
    def needed(self) -> float:
        return needed(self.text.large)

    @property
    def passes(self) -> bool:
        return bool((self.worst >= self.needed - 1e-9).all())


class _Look(NamedTuple):
    worst: Floats
    mean: Floats


def seen_in(p: SpanPlan, pixels: Pixels) -> tuple[Seen, ...]:
    """Every text of a span; nothing where no words show, or where the picture is not to be had.
    What has been seen is kept with the span, without the px: `pixels` gives the same ones for an
    original whenever it is asked, or None, and then it is asked again."""
    block, known = p.laid.block, _seen_by(p)
    if block is None:
        return ()
    found = known.get(pixels)
    if found is None:
        each = [_seen(p, pixels, text) for text in block.texts]
        if None in each:
            return ()
        found = known[pixels] = tuple(s for s in each if s is not None)
    return found


@once
def _seen_by(p: SpanPlan) -> MutableMapping[Pixels, tuple[Seen, ...]]:
    """What has been seen of a span, by who gave the px."""
    return WeakKeyDictionary()


def _seen(p: SpanPlan, pixels: Pixels, text: TextBox) -> Seen | None:
    v = p.on_picture
    n = len(p.viewport_w)
    if text.fill is not None or v.shows != "on" or not isinstance(p, ShownSpan):
        first = np.unique(np.array([0, n - 1]))
        if text.fill is not None or not _has_gradient(p):
            look = _looked(p, pixels, text, first[:1])
            if look is None:
                return None
            return Seen(
                text, first, np.repeat(look.worst, len(first)), np.repeat(look.mean, len(first))
            )
    columns = _first_columns(p)
    known: dict[int, tuple[float, float]] = {}
    asked = columns
    enough = needed(text.large)
    for _ in range(MOST_ROUNDS):
        look = _looked(p, pixels, text, asked)
        if look is None:
            return None
        known |= {
            int(c): (float(w), float(m))
            for c, w, m in zip(asked, look.worst, look.mean, strict=True)
        }
        columns = np.array(sorted(known))
        passes = np.array([known[c][0] >= enough - 1e-9 for c in columns.tolist()])
        between = np.flatnonzero((passes[1:] != passes[:-1]) & (np.diff(columns) > 1))
        if not between.size:
            break
        asked = _crossing(columns, [known[c][0] for c in columns.tolist()], between, enough)
    worst, mean = (np.array([known[c][i] for c in columns.tolist()]) for i in (0, 1))
    return Seen(text, columns, worst, mean)


def _has_gradient(p: SpanPlan) -> bool:
    v = p.on_picture
    return v.shows == "on" and not isinstance(v.scrim, NoScrim)


def _crossing(
    columns: NDArray[np.int64], worst: list[float], between: NDArray[np.int64], enough: float
) -> NDArray[np.int64]:
    """Where a straight line crosses the threshold, and the px on its other side."""
    out: set[int] = set()
    for i in between.tolist():
        a, b = int(columns[i]), int(columns[i + 1])
        t = (enough - worst[i]) / (worst[i + 1] - worst[i])
        at = min(max(a + int(t * (b - a)), a + 1), b - 1)
        out |= {at, min(at + 1, b - 1), (a + b) // 2}
    return np.array(sorted(out))


def _first_columns(p: SpanPlan) -> NDArray[np.int64]:
    """Widths spread over the span as they are over the horizon, and both sides of every width at
    which a text gets another number of lines."""
    n = len(p.viewport_w)
    first, last = float(p.viewport_w[0]), float(p.viewport_w[-1])
    spread = np.geomspace(first, last, FIRST_WIDTHS) - first
    chosen = set(np.clip(np.rint(spread), 0, n - 1).astype(int).tolist())
    block = p.laid.block
    for text in block.texts if block else ():
        turns = np.flatnonzero(np.diff(text.lines))
        chosen |= {int(t) for t in turns} | {int(t) + 1 for t in turns}
    return np.array(sorted(chosen))


def _looked(p: SpanPlan, pixels: Pixels, text: TextBox, columns: NDArray[np.int64]) -> _Look | None:
    at = at_widths(p, columns)
    found = under(p, pixels, text, at)
    if found is None:
        return None
    worst, mean = _ratios(p, found, text)
    shape = (len(all_rows(p)), len(columns))
    return _Look(worst.reshape(shape).min(axis=0), mean.reshape(shape).min(axis=0))


def _ratios(
    p: SpanPlan, found: Under, text: TextBox, strength: float | None = None
) -> tuple[Floats, Floats]:
    laid = composited(found, p.on_picture, text, strength)
    got = contrast(luminance_of(text.ink), luminance(laid))
    return got.worst, got.mean


def range_in_words(p: SpanPlan, columns: np.ndarray) -> str:
    """From the first to the last of some widths, in words."""
    first, last = int(p.viewport_w[columns[0]]), int(p.viewport_w[columns[-1]])
    return f"at {first} px" if first == last else f"from {first} to {last} px"


def failing_columns(s: Seen, n: int) -> np.ndarray:
    """The places of all widths at which a text cannot be read."""
    worst = np.interp(np.arange(n), s.columns, s.worst)
    return np.flatnonzero(worst < s.needed - 1e-9)


def unread(p: SpanPlan, seen: tuple[Seen, ...]) -> Iterator[tuple[Seen, np.ndarray]]:
    for s in seen:
        at = failing_columns(s, len(p.viewport_w))
        if at.size:
            yield s, at


def ratio_before_loading(p: SpanPlan, text: TextBox) -> float:
    """The contrast of a text on the background colour alone; on its own colour for a button."""
    return ratio_of(text.ink, text.fill or p.ground)


def unread_before_loading(p: SpanPlan) -> Iterator[tuple[TextBox, float, float]]:
    """The texts that cannot be read on the background colour alone, each with the contrast that it
    has and that it needs."""
    block = p.laid.block
    if block is None or p.on_picture.shows != "on":
        return
    for t in block.texts:
        ratio, least = ratio_before_loading(p, t), needed(t.large)
        if t.fill is None and ratio < least - 1e-9:
            yield t, ratio, least


def before_loading_sentence(p: SpanPlan, what: str, ratio: float, least: float) -> str:
    """That a text cannot be read on the background colour alone; where no picture shows, that is
    all there ever is."""
    ratios = f"{ratio:.1f} : 1 on {p.ground}, {least:g} : 1 needed."
    if p.effective.show != "picture":
        return f"{what} cannot be read on the colour that stands for the picture: {ratios}"
    return f"{what} cannot be read before the picture has loaded: {ratios}"


# -- the least scrim ------------------------------------------------------------------------


class LeastScrim(NamedTuple):
    """The least strength of a scrim with which every text of a span can be read at every width.
    `strength` is None where none does; `best` is then the ratio that comes nearest, as a share of
    what is needed."""

    scrim: Scrim
    strength: float | None
    best: float


def suggested_scrim(p: SpanPlan) -> Scrim:
    """The span's own scrim; where it has none a plain one, dark under light words."""
    v = p.on_picture
    return v.scrim if not isinstance(v.scrim, NoScrim) else plain_scrim(p)


def plain_scrim(p: SpanPlan) -> PlainScrim:
    light = luminance_of(p.on_picture.colour) > EVEN
    return PlainScrim(colour="#000000" if light else "#ffffff")


def least_scrim(
    p: SpanPlan, pixels: Pixels, seen: tuple[Seen, ...], scrim: Scrim | None = None
) -> LeastScrim | None:
    """The least strength of the span's own scrim, or of another, at which its words can be read.
    Tried in steps from none to all, then closed in on:
    whether text can be read is not always monotone in the strength. None where no words lie on the
    picture."""
    if p.on_picture.shows != "on" or not seen:
        return None
    scrim = scrim or suggested_scrim(p)
    q = with_values(p, scrim=scrim)
    sampled = []
    for s in seen:
        if s.text.fill is not None:
            continue
        # the widths that are read worst, and those in between
        order = np.argsort(s.worst)[:3]
        few = np.unique(
            np.concatenate([s.columns[order], s.columns[:: max(1, len(s.columns) // 4)]])
        )
        found = under(q, pixels, s.text, at_widths(q, few), most=FEWER_PX)
        if found is None:
            return None
        sampled.append((s.text, found))
    if not sampled:
        return None

    def margin(strength: float) -> float:
        return min(
            float(_ratios(q, found, text, strength)[0].min()) / needed(text.large)
            for text, found in sampled
        )

    least = least_strength(margin, 1e-4)
    if least.strength is None:
        return LeastScrim(scrim, None, least.best)
    # up to a whole per cent, which is what is said and set; then as all widths say
    strength = max(0.0, math.ceil(least.strength * 100 - 1e-6) / 100)
    while not readable(with_values(p, scrim=scrim, strength=strength), pixels):
        if strength >= 1:
            return LeastScrim(scrim, None, least.best)
        strength = min(1.0, round(strength + 0.01, 2))
    return LeastScrim(scrim, strength, least.best)


def readable(p: SpanPlan, pixels: Pixels) -> bool:
    """Whether every text can be read that lies on the picture or its scrim; buttons lie on their
    own colour."""
    seen = seen_in(p, pixels)
    return bool(seen) and all(s.passes for s in seen if s.text.fill is None)


def with_values(p: SpanPlan, **values: object) -> SpanPlan:
    """The span with other values of its words, where these do not change its frame."""
    said = p.on_picture.model_copy(update=values)
    spot = replace(p.spot, values=said)
    return replace(p, spot=spot)
