"""How a kind of placement lays out its parts: a module each."""

from skypane.layouts import banner, beside, grid, logo, picture, slides
from skypane.layouts.layout import (
    SCRIPTED,
    Cell,
    Facts,
    Frame,
    Layout,
    OfLayout,
    Spot,
    begun,
    has_items,
    kinds,
    known,
    layout_of,
    value_names,
)

__all__ = [
    "SCRIPTED",
    "Cell",
    "Facts",
    "Frame",
    "Layout",
    "OfLayout",
    "Spot",
    "banner",
    "begun",
    "beside",
    "grid",
    "has_items",
    "kinds",
    "known",
    "layout_of",
    "logo",
    "picture",
    "slides",
    "value_names",
]
