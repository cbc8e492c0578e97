"""How a kind of placement lays out its parts: a module each."""

from skypane.layouts import banner, picture
from skypane.layouts.layout import (
    Cell,
    Frame,
    Layout,
    OfLayout,
    Spot,
    begun,
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
    "kinds",
    "known",
    "layout_of",
    "picture",
    "value_names",
]
