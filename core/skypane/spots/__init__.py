"""Spots read off a picture of the design: rectangles in, the frame rules that give them out
(rules §17)."""

from skypane.spots.grid import PageLines, lines_of
from skypane.spots.guess import guessed_width
from skypane.spots.nouns import Asked, ReadRule, Seen
from skypane.spots.rules import frame_rules

__all__ = ["Asked", "PageLines", "ReadRule", "Seen", "frame_rules", "guessed_width", "lines_of"]
