"""What a kind of placement has to say for itself: the contract that every kind fulfils, and which
kinds there are. The kinds themselves are in `skypane.kinds`."""

from skypane.layouts.laid import Laid, column_and_row
from skypane.layouts.layout import (
    SCRIPTED,
    Layout,
    Nothing,
    OfLayout,
    begun,
    has_items,
    kind_names,
    known,
    layout_of,
    value_classes,
    value_names,
)
from skypane.layouts.many import Many
from skypane.layouts.spot import Cell, Facts, Frame, Spot

__all__ = [
    "SCRIPTED",
    "Cell",
    "Facts",
    "Frame",
    "Laid",
    "Layout",
    "Many",
    "Nothing",
    "OfLayout",
    "Spot",
    "begun",
    "column_and_row",
    "has_items",
    "kind_names",
    "known",
    "layout_of",
    "value_classes",
    "value_names",
]
