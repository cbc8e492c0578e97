"""A picture that something lies on: words, a mark, a small cut of itself."""

from skypane.kinds.banner import findings, layout

__all__ = ["findings", "layout"]
