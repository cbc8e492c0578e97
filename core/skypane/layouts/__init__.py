"""How a kind of placement lays out its parts: a module each."""

from skypane.layouts import banner, picture
from skypane.layouts.layout import Cell, Frame, Layout, OfLayout, Spot, kinds, known, layout_of

__all__ = [
    "Cell",
    "Frame",
    "Layout",
    "OfLayout",
    "Spot",
    "banner",
    "kinds",
    "known",
    "layout_of",
    "picture",
]
