"""All that the desk shows of a placement."""

from skypane.reading.nouns import Moving, Reading
from skypane.reading.read import read, read_moving

__all__ = ["Moving", "Reading", "read", "read_moving"]
