"""A logo in cuts that differ with the width."""

from skypane.kinds.logo import findings, layout, reading

__all__ = ["findings", "layout", "reading"]
