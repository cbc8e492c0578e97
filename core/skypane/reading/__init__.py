"""All that the desk shows of a placement."""

from skypane.reading.nouns import Moving, PageReading, Reading
from skypane.reading.page import read_page
from skypane.reading.read import read, read_moving

__all__ = ["Moving", "PageReading", "Reading", "read", "read_moving", "read_page"]
