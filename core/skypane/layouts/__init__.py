"""What a kind of placement has to say for itself: the contract that every kind fulfils, and which
kinds there are. The kinds themselves are in `skypane.kinds`."""

from skypane.layouts.frame_handles import (
    Box,
    box_left,
    frame_box,
    height_handles,
    width_handles,
)
from skypane.layouts.handles import (
    Edge,
    Handle,
    Sets,
    Stop,
    choice_handle,
    place_handles,
    value_handle,
    with_sets,
)
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
    "Box",
    "Cell",
    "Edge",
    "Facts",
    "Frame",
    "Handle",
    "Laid",
    "Layout",
    "Many",
    "Nothing",
    "OfLayout",
    "Sets",
    "Spot",
    "Stop",
    "begun",
    "box_left",
    "choice_handle",
    "column_and_row",
    "frame_box",
    "has_items",
    "height_handles",
    "kind_names",
    "known",
    "layout_of",
    "place_handles",
    "value_classes",
    "value_handle",
    "value_names",
    "width_handles",
    "with_sets",
]
