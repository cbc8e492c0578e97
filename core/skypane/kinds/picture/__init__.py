"""One picture that fills its frame."""

from skypane.kinds.picture import layout

__all__ = ["layout"]
