"""How a kind of placement lays out its parts: a module each."""

from skypane.layouts import banner, grid, picture, slides
from skypane.layouts.layout import (
    Cell,
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
    "Cell",
    "Frame",
    "Layout",
    "OfLayout",
    "Spot",
    "banner",
    "begun",
    "grid",
    "has_items",
    "kinds",
    "known",
    "layout_of",
    "picture",
    "slides",
    "value_names",
]
