"""The `picture` element (HTML Standard §4.8.1–4.8.4: picture, source, img), whatever its files are:
those of a delivery, or previews of them.

Sources stand in the order in which they have to be tested: by span, in a span what is for a
condition before what is usual, and of each by format, most modern first.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from skypane.markup.elements import Address, Candidate, Element, File, Listed, Value, element
from skypane.model import MediaStyle
from skypane.widths.conditions import conditions
from skypane.widths.spans import Span

#: An image of nothing, for spans that show none: no request is made, where a picture that is only
#: hidden would be fetched.
BLANK = "data:image/svg+xml,%3Csvg%20xmlns=%22http://www.w3.org/2000/svg%22/%3E"


class Source(NamedTuple):
    """Files of one format as they are offered. `plain` is for browsers that read no lists, its px
    say the ratio; `sizes` goes with lists of widths."""

    candidates: tuple[Candidate, ...]
    plain: Address
    width_px: int
    height_px: int
    type: str | None = None
    sizes: str | None = None

    @property
    def attributes(self) -> dict[str, Value]:
        return {
            "srcset": Listed(self.candidates),
            "sizes": self.sizes,
            "width": self.width_px,
            "height": self.height_px,
        }


class Served(NamedTuple):
    """Neighbouring spans that the same sources serve, as one span: `letters` are all of theirs.
    `sources` by format, none where nothing shows; `instead` what comes before them under
    conditions, each with these as CSS has them, in the order of testing."""

    span: Span
    letters: tuple[str, ...]
    sources: tuple[Source, ...]
    instead: tuple[tuple[str, tuple[Source, ...]], ...] = ()


class Img(NamedTuple):
    """What the `img` of a picture says beside its files: `alt`, and what comes after it."""

    alt: str
    rest: Mapping[str, Value]


def picture_element(
    attributes: Mapping[str, Value],
    served: Sequence[Served],
    style: MediaStyle,
    img: Img,
    *,
    as_widths: bool = False,
) -> Element:
    """A picture that serves spans from the narrowest. `as_widths`: all of its lists say widths, so
    that its blank sources do too."""
    by_letter = {s.span.letter: s for s in served}
    inner: list[Element] = []
    for letter, media in conditions(tuple(s.span for s in served), style):
        one = by_letter[letter]
        for condition, sources in one.instead:
            where = condition if media is None else f"{media} and {condition}"
            inner += [_source(each, where, one.letters) for each in sources]
            inner += [] if sources else [_blank(where, one.letters, as_widths)]
        if media is not None:
            inner += [_source(each, media, one.letters) for each in one.sources]
            inner += [] if one.sources else [_blank(media, one.letters, as_widths)]
            continue
        inner += [_source(each, None, one.letters) for each in one.sources[:-1]]
        inner.append(_img(one, img))
    return element("picture", attributes, inner)


def _source(of: Source, media: str | None, spans: tuple[str, ...]) -> Element:
    said: dict[str, Value] = {"media": media, "type": of.type, **of.attributes}
    return element("source", said, spans=spans)


def _blank(media: str, spans: tuple[str, ...], as_widths: bool) -> Element:
    nothing = Listed((Candidate(BLANK, "1w" if as_widths else ""),))
    said = {"media": media, "srcset": nothing, "sizes": "1px" if as_widths else None}
    return element("source", said, spans=spans)


def _img(of: Served, img: Img) -> Element:
    if not of.sources:
        return element("img", {"src": BLANK, "alt": img.alt}, spans=of.letters)
    last = of.sources[-1]
    listed = last.attributes
    if len(last.candidates) == 1:
        listed = {k: v for k, v in listed.items() if k in ("width", "height")}
    said: dict[str, Value] = {"src": File(last.plain), **listed, "alt": img.alt, **img.rest}
    return element("img", said, spans=of.letters)
