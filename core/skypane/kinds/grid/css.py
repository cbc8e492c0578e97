"""The CSS of a grid, its cells and their captions, and of what turns its rows."""

from __future__ import annotations

from skypane.kinds.grid.arranged import (
    BESIDE_PX,
    Place,
    is_wide,
    laid_out,
    line_css,
    padding_in_column,
    padding_of,
    turned_stops,
    values_of,
    waiting_items,
)
from skypane.kinds.grid.values import OWN_RATIOS
from skypane.layouts import SCRIPTED, Spot
from skypane.model import Item, RatioHeight
from skypane.numerals import number, px
from skypane.widths.frame_css import height_css, standing_css, width_css
from skypane.widths.frames import frame_widths
from skypane.words.caption import ABOVE_PX, caption_css


def grid_css(spot: Spot) -> dict[str, dict[str, str]]:
    """Declarations of the grid, its cells and captions, by what follows the placement's class."""
    v, laid = values_of(spot), laid_out(spot)
    n, shown = laid.n, laid.places
    turned, beside = v.is_turned, v.arranged == "rows"
    e = spot.cells[0].effective
    widths = frame_widths(e.width, spot.page_widths, spot.container)
    fills = (widths >= spot.page_widths - 0.01).all()
    is_flex = v.arranged == "justified"
    equal = f"repeat({n}, minmax(0, 1fr))" if n > 1 else "minmax(0, 1fr)"
    gaps = (n - 1) * v.gutter_px
    each = f"calc((100% - {px(gaps)}) / {n})" if gaps else f"{number(round(100 / n, 6))}%"
    gone = v.arranged == "hidden" or not any(shown)
    display = "none" if gone else "flex" if is_flex else "grid"
    item = "grid" if beside else "block"
    out = {
        "": {
            "box-sizing": "border-box",
            "list-style": "none",
            "margin-block": "0",
            "display": display,
            "grid-template-columns": "none" if turned or is_flex else equal,
            "grid-auto-flow": "column" if turned else "row",
            "grid-auto-columns": each if turned else "auto",
            "flex-wrap": "wrap" if is_flex else "nowrap",
            "align-items": "start",
            "gap": px(v.gutter_px),
            "width": width_css(e.width, spot.container),
            "margin-inline": "0" if fills else standing_css(e.stands, e.width, spot.container),
            "padding": px(v.margin_px),
            "overflow-x": "auto" if turned else "visible",
            "scroll-snap-type": "x mandatory" if turned else "none",
            "scroll-padding": px(v.margin_px) if turned else "auto",
        },
        " > li": {
            "box-sizing": "border-box",
            "min-width": "0",
            "padding": _padding_css(spot),
            "container-type": "inline-size" if any(map(_is_wide, _items(spot))) else "normal",
            "scroll-snap-align": "start" if turned else "none",
        },
        " figure": {
            "display": item,
            "grid-template-columns": (
                f"{number(v.share_percent)}% minmax(0, 1fr)" if beside else "none"
            ),
            "column-gap": "0",
            "align-items": "start",
            "margin": "0",
        },
    }
    captions = caption_css(spot.typeface, v)
    captions[" figcaption"] |= {
        "padding-left": px(BESIDE_PX) if beside else "0",
        "white-space": "nowrap" if v.arranged == "masonry" else "normal",
        "overflow": "hidden" if v.arranged == "masonry" else "visible",
        "text-overflow": "ellipsis",
    }
    captions[" figcaption > :first-child"] = {"margin-top": "0" if beside else px(ABOVE_PX)}
    if any(i and i.has_caption for i in _items(spot)):
        out |= captions
    out |= _turns_css(spot)
    later = frozenset(waiting_items(spot))
    out[":has(:target)"] = {"--more": "block" if later else "none"}
    out[" > [data-more]"] = {
        "display": "block" if later else "none",
        "grid-column": "1 / -1",
        "width": "100%",
    }
    out[":has(:target) > [data-more]"] = {"display": "none"}
    for i, place in enumerate(shown):
        shows = "var(--more, none)" if i in later else "block"
        held = place or Place()
        out[f" > :nth-child({i + 1})"] = {
            "display": "none" if place is None else shows,
            "grid-column": held.column,
            "grid-row": held.row,
            "margin-top": held.margin_top,
            "width": held.width,
            "flex": held.flex,
        }
        if _is_wide(spot.cells[i].item):
            # a percentage refers to both of its columns
            out[f" > :nth-child({i + 1})"]["padding"] = _padding_css(spot, is_wide(spot, i))
    return out


def frame_css(spot: Spot, part: int) -> dict[str, str]:
    """Declarations of the frame of one item."""
    v, cell = values_of(spot), spot.cells[part]
    e = cell.effective
    w, h = cell.natural
    height = height_css(e.height, cell.natural)
    if v.arranged in OWN_RATIOS:
        height = {
            **height_css(RatioHeight(w=1, h=1), cell.natural),
            "aspect-ratio": f"{w} / {h}",
        }
    elif is_wide(spot, part) and isinstance(e.height, RatioHeight):
        height = {**height, **_wide_height(spot, e.height)}
    return {
        "display": "none" if e.show == "nothing" else "block",
        "width": "100%",
        **height,
        "background": e.background,
    }


def _items(spot: Spot) -> list[Item | None]:
    return [c.item for c in spot.cells]


def _is_wide(item: Item | None) -> bool:
    return bool(item and item.wide)


#: The side of a button that turns the row, in CSS px (WCAG 2.2, 2.5.8 asks for 24).
_BUTTON_PX = 36.0


def _turns_css(spot: Spot) -> dict[str, dict[str, str]]:
    """The buttons under a row that is turned, as wide as it. They are there where scripts may run,
    and can be used once theirs does."""
    e = spot.cells[0].effective
    widths = frame_widths(e.width, spot.page_widths, spot.container)
    fills = (widths >= spot.page_widths - 0.01).all()
    display = {"display": "flex" if turned_stops(spot) > 1 else "none"}
    chevron = {"border": "solid currentColor", "border-width": "3px 3px 0 0"}
    return {
        "-turns": {
            "display": "none",
            "visibility": "hidden",
            "box-sizing": "border-box",
            "align-items": "center",
            "justify-content": "center",
            "gap": "12px",
            "width": width_css(e.width, spot.container),
            "margin-inline": "0" if fills else standing_css(e.stands, e.width, spot.container),
            "padding": "8px 0",
            "font": "600 15px/1 sans-serif",
        },
        f"{SCRIPTED}-turns": display,
        "-turns[data-on]": {**display, "visibility": "visible"},
        "-turns button": {
            "display": "grid",
            "place-items": "center",
            "width": px(_BUTTON_PX),
            "height": px(_BUTTON_PX),
            "padding": "0",
            "border": "0",
            "border-radius": "50%",
            "background": "none",
            "color": "inherit",
            "cursor": "pointer",
        },
        "-turns button:focus-visible": {
            "outline": "3px solid currentColor",
            "outline-offset": "-3px",
        },
        "-turns [aria-disabled=true]": {"opacity": "0.4", "cursor": "default"},
        "-turns button::before": {
            "content": '""',
            "width": "9px",
            "height": "9px",
            **chevron,
            "rotate": "45deg",
        },
        "-turns [data-by='-1']::before": {"rotate": "-135deg"},
        "-turns:dir(rtl) button::before": {"rotate": "-135deg"},
        "-turns:dir(rtl) [data-by='-1']::before": {"rotate": "45deg"},
    }


def _padding_css(spot: Spot, wide: bool = False) -> str:
    """The padding of a cell: of the whole row in flexible boxes, of its column in a grid."""
    if values_of(spot).arranged == "justified":
        return line_css(*padding_of(spot))
    share, constant = padding_in_column(spot)
    if wide:
        share, constant = share / 2, constant - share * values_of(spot).gutter_px / 2
    return line_css(share, constant) if share else px(constant)


def _wide_height(spot: Spot, rule: RatioHeight) -> dict[str, str]:
    """As high as the others of its row: their width follows from that of its own cell, 100cqw being
    what that has inside its padding."""
    gutter, (share, constant) = values_of(spot).gutter_px, padding_in_column(spot)
    of = (1 - 2 * share) / (2 - 2 * share)
    rest = (2 * constant - gutter) * of - 2 * constant
    sign = "+" if rest > 0 else "-"
    whole = f"{number(round(100 * of, 6))}cqw"
    narrow = f"{whole} {sign} {px(abs(round(rest, 4)))}" if rest else whole
    high = number(round(rule.h / rule.w, 6))
    return {"height": f"calc(({narrow}) * {high})", "aspect-ratio": "auto"}
