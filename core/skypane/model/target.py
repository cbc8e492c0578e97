"""The selector of an element that a page has (Selectors Level 4 §3), as Lexbor reads it."""

from __future__ import annotations

from typing import Annotated

import tinycss2
from pydantic import AfterValidator, Field
from selectolax.lexbor import LexborHTMLParser, SelectolaxError


def _selector(said: str) -> str:
    """One selector of an element, or none. Raises ValueError with a sentence."""
    said = " ".join(said.split())
    if not said:
        return ""
    if any(node == "," for node in tinycss2.parse_component_value_list(said)):
        raise ValueError("Write the selector of one element, without a comma.")
    if "::" in said:
        raise ValueError("Rules lie on the element itself: leave out what begins with two colons.")
    try:
        LexborHTMLParser("<p>").css(said)
        bad = set(said) & set("{};<@\\")
    except SelectolaxError:
        bad = {said}
    if bad:
        raise ValueError(
            f"{said[:80]} is no selector that can be read. Write one as in a style sheet:"
            " .hero > .image"
        )
    return said


Target = Annotated[str, Field(max_length=200), AfterValidator(_selector)]
