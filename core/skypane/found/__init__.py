"""Breakpoints, containers and column rules found in what a site already has: its CSS, its design
tokens, a table."""

from skypane.found.css import found_in_css
from skypane.found.hits import Hit, Hits, hits_in
from skypane.found.nouns import Found, FoundWidth, NothingFound
from skypane.found.table import found_in_table
from skypane.found.taken import Chosen, taken
from skypane.found.tokens import found_in_tokens

__all__ = [
    "Chosen",
    "Found",
    "FoundWidth",
    "Hit",
    "Hits",
    "NothingFound",
    "found_in",
    "found_in_css",
    "found_in_table",
    "found_in_tokens",
    "hits_in",
    "taken",
]


def found_in(text: str) -> Found:
    """What is found in a text, whichever of the three it is. Raises NothingFound or BadTable."""
    start = text.lstrip("\ufeff \t\r\n")
    first = start.splitlines()[0] if start else ""
    try:
        if start[:1] in "{[" and start:
            return found_in_tokens(text)
        if start and "{" not in start and any(map(first.count, ",;\t")):
            return found_in_table(text.encode("utf-8", "replace"))
        return found_in_css(text)
    except RecursionError:
        raise NothingFound("This is nested too deeply to be read.") from None
