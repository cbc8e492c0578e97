"""A sheet to type from: what each view of a host is given, row by row."""

from __future__ import annotations

from collections.abc import Mapping

from skypane.files.renditions import Files
from skypane.hosts.fares import InView, in_views
from skypane.hosts.lacks import Lack, lacks_of
from skypane.hosts.rules import overlay_css
from skypane.markup.addresses import addresses_of
from skypane.markup.picture import alt_text
from skypane.model import Host, NoScrim, OnPicture, PlainScrim
from skypane.numerals import number
from skypane.services.addresses import Sign
from skypane.shown.nouns import PartPlan, Plan
from skypane.values import Noun
from skypane.widths.frame_css import height_css, width_css
from skypane.widths.frames import Floats


class SheetRow(Noun):
    """One picture in one view. `frame_w` and `frame_h` are the least and the greatest size of its
    frame there, in CSS px; `position` is in per cent of the file, from the left and the top;
    `strength` of the `overlay` in per cent, None where its colours say it. `order` is its place on
    the page, from 1, where that is known."""

    picture: str
    view: str
    first: int
    last: int
    shows: str
    order: int | None
    file: str
    file_px: tuple[int, int] | None
    address: str
    alt: str
    fit: str
    position: tuple[float, float] | None
    width: str
    height: str
    frame_w: tuple[int, int] | None
    frame_h: tuple[int, int] | None
    behind: str
    overlay: str
    strength: int | None


class Sheet(Noun):
    """What is typed into a host, and what it cannot do."""

    rows: tuple[SheetRow, ...]
    lacks: tuple[Lack, ...]


def sheet_of(
    placed: Plan,
    files: Files,
    host: Host,
    order: Mapping[str, int] | None = None,
    sign: Sign | None = None,
) -> Sheet:
    """The sheet of a placement. `order`: its place on the page by the letter of a span, from 1."""
    if host.takes in ("markup", "rules"):
        return Sheet(rows=(), lacks=lacks_of(placed, host))
    views = [(part, in_views(placed, part, files, host)) for part in placed.written]
    addresses = addresses_of(placed, sign)

    def row(part: PartPlan, one: InView) -> SheetRow:
        p, file = one.says, one.file
        e, shows = p.effective, one.there.effective.show
        there = shows != "nothing"
        colour, strength = _overlay(p.spot.values) if part.part.role is None else ("", None)
        own = placed.layout.decorates
        natural = p.spot.cells[p.index].natural
        return SheetRow(
            picture=_called(placed, part),
            view=one.view.name,
            first=one.first,
            last=one.last,
            shows=shows,
            order=(order or {}).get(p.span.letter),
            file=file.name if file else "",
            file_px=(file.width_px, file.height_px) if file else None,
            address=addresses(file) if file else "",
            alt=alt_text(part) or "" if file else "",
            fit=e.fit if file and own else "",
            position=one.position if file else None,
            width=width_css(e.width, p.spot.container) if there and own else "",
            height=_height(height_css(e.height, natural)) if there and own else "",
            frame_w=_range(one.there.W) if there and own else None,
            frame_h=_range(one.there.H) if there and own else None,
            behind=e.background if there else "",
            overlay=colour if file else "",
            strength=strength if file else None,
        )

    rows = tuple(row(part, one) for part, there in views for one in there)
    fared = views if placed.layout.decorates else []
    return Sheet(rows=rows, lacks=lacks_of(placed, host, fared))


def _called(placed: Plan, part: PartPlan) -> str:
    """What tells the pictures of a placement apart; "" for the only one."""
    if len(placed.written) < 2:
        return ""
    if placed.layout.has_items:
        return f"{placed.layout.one.capitalize()} {part.index + 1}"
    return (part.part.role or "picture").capitalize()


def _height(css: Mapping[str, str]) -> str:
    """A height as it is typed: one value, and its bounds where it has some."""
    value = css["height"] if css["height"] != "auto" else css["aspect-ratio"].replace(" / ", ":")
    bounds = []
    if css["min-height"] != "0":
        bounds.append(f"at least {css['min-height']}")
    if css["max-height"] != "none":
        bounds.append(f"at most {css['max-height']}")
    return ", ".join([value, *bounds])


def _range(values: Floats) -> tuple[int, int]:
    return round(float(values.min())), round(float(values.max()))


def _overlay(values: object) -> tuple[str, int | None]:
    """Colour and strength in per cent of what lies over the picture; of a gradient how CSS has it,
    with the strength within."""
    if (
        not isinstance(values, OnPicture)
        or isinstance(values.scrim, NoScrim)
        or not values.strength
    ):
        return "", None
    if isinstance(values.scrim, PlainScrim):
        return values.scrim.colour, round(values.strength * 100)
    return overlay_css(values), None


def position_text(position: tuple[float, float]) -> str:
    """A place in a file: 50 % 30 %, from the left and from the top."""
    return " ".join(f"{number(v)} %" for v in position)
