"""Pictures that take turns in one place."""

from skypane.kinds.slides import elements, findings, layout

__all__ = ["elements", "findings", "layout"]
