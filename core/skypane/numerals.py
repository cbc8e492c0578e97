"""Numbers as JSON texts from outside write them."""

from __future__ import annotations

#: No field holds a whole number of more digits; those of a 64-bit key are 19.
MOST_DIGITS = 20


def whole(digits: str) -> int | float:
    """For `json.loads(parse_int=…)`: a number of hundreds of digits becomes a float, beyond its range infinity, which its field
    then refuses in words, where Python itself would refuse to read it at all."""
    return int(digits) if len(digits) <= MOST_DIGITS else float(digits)
