"""Pictures with text beside them."""

from skypane.kinds.beside import elements, findings, layout

__all__ = ["elements", "findings", "layout"]
