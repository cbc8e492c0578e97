"""Code, and what a pane shows."""

from __future__ import annotations

from skypane.model import PageColours, Way
from skypane.values import Noun


class CodeLine(Noun):
    """A line of code and the letters of the spans that it serves (none: all)."""

    text: str
    spans: tuple[str, ...]


class WayReading(Noun):
    """In which way a part is written, and why; why it cannot be written in others, and what the way
    costs."""

    way: Way
    why: str
    cannot: dict[Way, str]
    costs: tuple[str, ...]


class BehindReading(Noun):
    """What is seen of pictures until their files are there: the bytes of the style sheet that say
    it, all together and the most of one; the names of originals that have nothing to be seen."""

    all_bytes: int
    most_bytes: int
    without: tuple[str, ...]


class Code(Noun):
    markup: tuple[CodeLine, ...]
    css: tuple[CodeLine, ...]
    sizes: dict[int, str]  # by part, of its drawn width
    markup_text: str
    css_text: str
    scripts: tuple[Script, ...] = ()
    ways: dict[int, WayReading] = {}  # by part
    head: tuple[CodeLine, ...] = ()  # of the page
    head_text: str = ""
    behind: BehindReading | None = None
    without_address: tuple[str, ...] = ()  # files that a host has not been given yet


class CodeFile(Noun):
    """A text that is handed over, by its name in a delivery."""

    name: str
    lines: tuple[CodeLine, ...]
    text: str


class Script(Noun):
    """A script that goes with the markup; `tag` asks for it once in a page, `what` says what it
    does and what is so without it."""

    name: str
    what: str
    tag: str
    text: str


class Pane(Noun):
    """What the panes are made of: the delivered CSS for whole originals, and markup that shows
    previews of them. There each picture says in `data-part` which part it is, in `data-role` its
    role if it has one, and in `data-waits` the letters of spans in which it has no original yet.
    `colours` are those of the page around them."""

    markup: str
    css: str
    colours: PageColours


class PlacementPane(Pane):
    """`called` begins the class of every element of the placement."""

    called: str
