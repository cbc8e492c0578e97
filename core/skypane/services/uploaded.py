"""Where a host has put files that were brought to it: read off a table that people copy from there.

Hosts keep names as they are, or write them their own way: `lighthouse@2x.avif` becomes
`Lighthouse-2x_8f3a.avif`. A file is known again by the letters and digits of its name.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from urllib.parse import unquote, urlsplit

from skypane.model.hand_over import uploaded_address
from skypane.values import Answer

#: What stands between the fields of a line: a table copied from a page, a list, or CSV.
_BETWEEN = re.compile(r"[\t;|]|,\s|\s+")
MOST_LINES = 20_000


class Uploaded(Answer):
    """`addresses` by the name of a file; `missing` files have none yet; `unread` lines name no file
    that is asked for, or more than one."""

    addresses: dict[str, str]
    missing: tuple[str, ...]
    unread: tuple[str, ...]


def read_uploaded(
    text: str, names: Iterable[str], before: Mapping[str, str] | None = None
) -> Uploaded:
    """The addresses of a table, one to a line, beside the name of the file where that stands there.
    `names` are all files that are asked for; what was known `before` of them stays."""
    known = tuple(dict.fromkeys(names))
    found = {n: a for n, a in (before or {}).items() if n in set(known)}
    unread = []
    for line in text.splitlines()[:MOST_LINES]:
        fields = [f.strip("\"'") for f in _BETWEEN.split(line.strip()) if f.strip("\"'")]
        if not fields:
            continue
        address = next((f for f in fields if re.match(r"https?://|/", f)), None)
        name = next((f for f in fields if f in known), None)
        if address is not None and name is None:
            name = _named(address, known)
        try:
            if address is None or name is None:
                raise ValueError
            found[name] = uploaded_address(address)
        except ValueError:
            unread.append(line.strip()[:200])
    return Uploaded(
        addresses=found,
        missing=tuple(n for n in known if n not in found),
        unread=tuple(unread),
    )


def _named(address: str, known: Iterable[str]) -> str | None:
    """The file that an address ends in: that very name, else the only one whose letters and digits
    its own begins with, the longest of those."""
    last = unquote(urlsplit(address).path).rpartition("/")[2]
    by_file = {n.rpartition("/")[2]: n for n in known}
    if last in by_file:
        return by_file[last]
    stem, ending = _signs(last)
    fitting = [
        (len(_signs(file)[0]), name)
        for file, name in by_file.items()
        if _signs(file)[1] == ending and stem.startswith(_signs(file)[0])
    ]
    longest = max((n for n, _ in fitting), default=0)
    of_longest = [name for n, name in fitting if n == longest]
    return of_longest[0] if len(of_longest) == 1 else None


def _signs(name: str) -> tuple[str, str]:
    """Letters and digits of a file's name, and its ending."""
    stem, _, ending = name.lower().rpartition(".")
    plain = {"jpeg": "jpg"}.get(ending, ending)
    return re.sub(r"[^a-z0-9]", "", stem), plain
