"""Code as lines that know which spans they serve."""

from __future__ import annotations

from typing import NamedTuple


class Line(NamedTuple):
    """A line of code and the letters of the spans that it serves (none: all)."""

    text: str
    spans: tuple[str, ...] = ()

    def indented(self) -> Line:
        return self._replace(text=f"  {self.text}")


def text_of(lines: tuple[Line, ...]) -> str:
    return "".join(f"{line.text}\n" for line in lines)
