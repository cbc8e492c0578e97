"""What can go wrong, each with a sentence a designer understands and the remedy.

The server turns these into RFC 9457 problem documents; the command line into `{"error": …}`.
"""

from __future__ import annotations


class SkyPaneError(Exception):
    """Base of all errors that are told to the user. `str(error)` is the sentence; `field` names where, if anywhere."""

    def __init__(self, sentence: str, *, field: str | None = None) -> None:
        super().__init__(sentence)
        self.field = field


class InvalidPlan(SkyPaneError, ValueError):
    """A site, frame or treatment that cannot be computed: breakpoints out of order, a frame of no size."""


class UnreadablePicture(SkyPaneError):
    """Bytes that are not a picture that can be worked with: text, truncated, empty, too large."""
