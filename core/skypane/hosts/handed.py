"""What a host is given of one placement: a style sheet, or a sheet to type from."""

from __future__ import annotations

from collections.abc import Mapping

from skypane.errors import InvalidPlan
from skypane.files.renditions import Files
from skypane.hosts.rules import rules_lines
from skypane.hosts.sheet import Sheet, sheet_of
from skypane.hosts.sheet_page import Table, sheet_html, tables_of, widths_text
from skypane.markup.addresses import addresses_of
from skypane.markup.lines import Line, text_of
from skypane.model import HostTakes
from skypane.services.addresses import Sign
from skypane.shown.nouns import Plan
from skypane.values import Answer


class LackTold(Answer):
    """What a host cannot do, and `where`: the widths at which that shows, in words."""

    sentence: str
    where: str


class HostLine(Answer):
    """A line of the rules and the letters of the spans that it serves (none: all)."""

    text: str
    spans: tuple[str, ...]


class HostReading(Answer):
    """What a host is given of a placement: `css` where it takes rules, with `why_not` where there
    are none; `tables` to type from, and `page` with the same to be printed. `lacks` is what it
    cannot do."""

    takes: HostTakes
    css: tuple[HostLine, ...]
    css_text: str
    why_not: str
    tables: tuple[Table, ...]
    page: str
    lacks: tuple[LackTold, ...]


def host_reading(
    placed: Plan,
    files: Files,
    order: Mapping[str, int] | None = None,
    sign: Sign | None = None,
) -> HostReading:
    """What the host of the plan's site is given. `order`: the place on the page by the letter of a
    span, from 1."""
    host, why = placed.site.hand_over.host, None
    css: tuple[Line, ...] = ()
    sheet = sheet_of(placed, files, host, order, sign)
    if host.takes == "rules":
        css, why = _rules(placed, files, sign)
    return HostReading(
        takes=host.takes,
        css=tuple(HostLine(text=line.text, spans=line.spans) for line in css),
        css_text=text_of(css),
        why_not=str(why or ""),
        tables=tables_of(sheet),
        page=_page(placed, sheet),
        lacks=tuple(
            LackTold(sentence=lack.sentence, where=widths_text(lack.runs)) for lack in sheet.lacks
        ),
    )


def host_texts(
    placed: Plan, files: Files, order: Mapping[str, int] | None = None, sign: Sign | None = None
) -> dict[str, str]:
    """The texts of a placement for the host of its site, by their names in a delivery; none where
    it takes markup."""
    host, called = placed.site.hand_over.host, placed.placement.called
    if host.takes == "markup":
        return {}
    if host.takes == "rules":
        css, why = _rules(placed, files, sign)
        return {f"host/{called}.css": text_of(css) if css else f"/* {why} */\n"}
    return {f"host/{called}.html": _page(placed, sheet_of(placed, files, host, order, sign))}


def _rules(
    placed: Plan, files: Files, sign: Sign | None
) -> tuple[tuple[Line, ...], InvalidPlan | None]:
    try:
        return rules_lines(placed, files, addresses_of(placed, sign)), None
    except InvalidPlan as problem:
        return (), problem


def _page(placed: Plan, sheet: Sheet) -> str:
    return sheet_html(placed.placement.name, sheet, placed.site.language)
