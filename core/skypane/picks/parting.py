"""What in markup makes engines part, found in its texts alone (docs/engines.md)."""

from __future__ import annotations

import re
from collections.abc import Iterable

#: The texts of an img or source: srcset, sizes, media, type.
Texts = tuple[str | None, str | None, str | None, str | None]

_FUNCTION = re.compile(r"([a-z-]+)\(", re.I)
_CONSTANT = re.compile(r"\b(pi|infinity|nan)\b", re.I)
_FONT_UNIT = re.compile(r"\d(r?em|r?ex|r?ch|r?ic|r?lh|r?cap)\b", re.I)
_FRACTION = re.compile(r"\d*\.\d+|/|e-?\d", re.I)
_ODD_DENSITY = re.compile(r"(?<![\d.])(1\.75|3\.5)0*x", re.I)
_ZERO_OR_HUGE = re.compile(r"(?<![\d.])0\d+[wh]\b|\d{9,}|\d[eE]\+?\d|data:", re.I)
_AUTO = re.compile(r"\s*auto\b", re.I)


def parting(texts: Iterable[Texts], *, lazy: bool) -> tuple[list[str], bool]:
    """Sentences about what engines read differently in any window, and whether they can part in
    more than the width that `w` is measured against."""
    said: list[str] = []
    anywhere = False
    for srcset, sizes, media, type_ in texts:
        srcset, sizes, media = srcset or "", sizes or "", media or ""
        functions = {f.lower() for f in _FUNCTION.findall(sizes)} - {"calc"}
        if functions & {"min", "max", "clamp"}:
            said.append(
                "WebKit drops an entry of sizes with min(), max() or clamp() and goes on to the"
                " next, or to 100vw. Write it with media conditions and calc()."
            )
        if functions - {"min", "max", "clamp"} or ("(" in sizes and _CONSTANT.search(sizes)):
            said.append(
                "Only Firefox takes every math function in sizes. Write it with media conditions"
                " and calc()."
            )
        if _AUTO.match(sizes) and not sizes.partition(",")[2].strip():
            said.append(
                "sizes is auto without a list after it: WebKit takes 100vw, and so does any image"
                " that is not lazy."
            )
        elif _AUTO.match(sizes) and not lazy:
            said.append(
                "sizes begins with auto but the image is not lazy: Chromium takes 100vw, others go"
                " on to the list after it."
            )
        if _FONT_UNIT.search(media):
            said.append(
                "em in media is 16 px, but WebKit measures it against the font size of the html"
                " element. Write px."
            )
        if _ODD_DENSITY.search(srcset):
            said.append(
                "Firefox counts a 1.75x screen as 1.7647x and a 3.5x screen as 3.529x: a 1.75x or"
                " 3.5x file does not suffice."
            )
        anywhere |= bool(
            _FRACTION.search(media)
            or _ZERO_OR_HUGE.search(srcset)
            or "jxl" in (type_ or "").lower()
            or "dpcm" in media.lower()
        )
    return list(dict.fromkeys(said)), anywhere


def sizes_part(sizes: str | None) -> bool:
    """Whether engines can measure `w` against different widths by these `sizes`."""
    return bool(sizes) and bool(
        {f.lower() for f in _FUNCTION.findall(sizes or "")} - {"calc"}
        or _CONSTANT.search(sizes or "")
        or _AUTO.match(sizes or "")
        or _FRACTION.search(sizes or "")
        or _ZERO_OR_HUGE.search(sizes or "")
    )
