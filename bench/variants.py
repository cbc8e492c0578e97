"""What a reading costs where other pictures show under conditions, beside one without."""

from __future__ import annotations

import statistics
from collections.abc import Callable, Sequence
from itertools import count

from skypane import Original, Part, Placement, Site, Treatment, read
from skypane.model import Area, RatioHeight, Rect, ViewportHeight

SITE = Site()
ORIGINALS = {
    i: Original(
        id=i,
        name=f"{i}.jpg",
        width_px=6000,
        height_px=4000,
        sha256=str(i),
        alt="A",
        areas=(Area(name="Tower", rect=Rect(x=0.6, y=0.2, w=0.1, h=0.5)),),
    )
    for i in (1, 2, 3)
}
TIMES = 60


def quay(ratio: float, whens: Sequence[tuple[str, ...]]) -> Placement:
    usual = {
        "D": Treatment(original=1, height=ViewportHeight(percent=70)),
        "C": Treatment(height=RatioHeight(w=ratio, h=1)),
        "A": Treatment(height=RatioHeight(w=4, h=5)),
    }
    others = [
        Part(of="quay", when=when, treatments={"D": Treatment(original=i)})  # type: ignore[arg-type]  # features by name
        for i, when in enumerate(whens, 2)
    ]
    return Placement(name="Quay", parts=(Part(key="quay", treatments=usual), *others))


def variants(timed: Callable[..., list[float]], ms: Callable[[list[float]], str]) -> list[str]:
    at = count()

    def once(whens: Sequence[tuple[str, ...]]) -> None:
        read(SITE, quay(2 + 0.001 * next(at), whens), ORIGINALS, chosen=(0, "D"))

    without = timed(lambda: once(()), TIMES)
    both = timed(lambda: once((("dark",), ("portrait",))), TIMES)
    ratio = statistics.median(both) / statistics.median(without)
    return [
        f"- All of a reading with another picture for the dark and one for portrait: {ms(both)};"
        f" without: {ms(without)}. {ratio:.2f} of it, target at most 1.6."
    ]
