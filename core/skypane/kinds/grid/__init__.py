"""Many pictures in one spot."""

from skypane.kinds.grid import elements, findings, layout

__all__ = ["elements", "findings", "layout"]
