"""An image service: which addresses ask it for which file (RFC 6570)."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field, model_validator

from skypane.values import Noun

#: What a variable of a template can stand for. A cut is a part of the original, in its own px or as
#: shares of its sides; the focal point as shares of them. `hash`: the first 16 digits of the
#: original's SHA-256.
Meaning = Literal[
    "name",
    "hash",
    "width",
    "height",
    "format",
    "quality",
    "crop_x",
    "crop_y",
    "crop_width",
    "crop_height",
    "focal_x",
    "focal_y",
    "expires",
    "key",
    "signature",
]
CROP: tuple[Meaning, ...] = ("crop_x", "crop_y", "crop_width", "crop_height")

#: A template is literals and expressions in braces (RFC 6570 §2.1 and §2.2): an operator, then
#: variables, each perhaps with a prefix length or an asterisk (§2.4).
_VARIABLE = r"(?:[A-Za-z0-9_]|%[0-9A-Fa-f]{2})(?:\.?(?:[A-Za-z0-9_]|%[0-9A-Fa-f]{2}))*"
_SPEC = rf"{_VARIABLE}(?::[1-9][0-9]{{0,3}}|\*)?"
_EXPRESSION = re.compile(rf"[+#./;?&]?{_SPEC}(?:,{_SPEC})*")
_LITERAL = re.compile(r"[^\x00-\x20\"'%<>\\^`{|}\x7f]|%[0-9A-Fa-f]{2}")


def expressions(template: str) -> Iterator[str]:
    """What stands in the braces of a template. Raises ValueError, with a sentence, where it is
    none."""
    at = 0
    while at < len(template):
        if template[at] == "{":
            end = template.find("}", at)
            inner = template[at + 1 : end] if end > 0 else ""
            if end < 0 or not _EXPRESSION.fullmatch(inner):
                shown = template[at : end + 1 if end > 0 else at + 12]
                raise ValueError(
                    f"{shown} is no expression of a URL template. Write {{name}} for a variable,"
                    " {?w,h} for parameters."
                )
            yield inner
            at = end + 1
            continue
        found = _LITERAL.match(template, at)
        if found is None:
            shown = (
                template[at] if template[at].isprintable() and template[at] != " " else "A space"
            )
            raise ValueError(f"{shown} cannot stand in an address outside of braces.")
        at = found.end()


def variables_of(template: str) -> tuple[str, ...]:
    """The variables of a template, each once. Raises ValueError where it is none."""
    found = (
        re.sub(r"(:\d+|\*)$", "", spec)
        for inner in expressions(template)
        for spec in inner.lstrip("+#./;?&").split(",")
    )
    return tuple(dict.fromkeys(found))


class Service(Noun):
    """`means` says for each variable of the `template` what it stands for, `fixed` what it always
    is. Without a format in it the service and the browser agree on one (RFC 9110 §12.5.1). `key` is
    the name of the key that addresses are signed with; the key itself is not kept here.
    `seconds`: how long a signed address holds."""

    template: Annotated[str, Field(min_length=1, max_length=500)]
    means: dict[str, Meaning] = Field(default_factory=dict)
    fixed: Annotated[dict[str, Annotated[str, Field(max_length=100)]], Field(max_length=30)] = (
        Field(default_factory=dict)
    )
    crop_in: Literal["px", "shares"] = "px"
    quality: Annotated[int, Field(ge=1, le=100)] = 80
    key: Annotated[str, Field(max_length=40)] = ""
    seconds: Annotated[int, Field(ge=60, le=10 * 365 * 86400)] = 365 * 86400

    @model_validator(mode="after")
    def _says_all(self) -> Service:
        names = variables_of(self.template)
        if not re.match(r"https?://[^/{}]|/", self.template):
            raise ValueError("A template begins with https:// and a host, or with /.")
        if not names:
            raise ValueError(
                "There is no variable in this template: every file would have the same address."
                " Write {name} where the name of the original stands, {width} where its width does."
            )
        told = {**self.means, **self.fixed}
        if unknown := [n for n in names if n not in told]:
            raise ValueError(f"Nothing says what {{{unknown[0]}}} stands for in the template.")
        if stray := [n for n in told if n not in names]:
            raise ValueError(f"There is no {{{stray[0]}}} in the template.")
        if both := set(self.means) & set(self.fixed):
            raise ValueError(
                f"{{{min(both)}}} stands for something, and is something fixed. Say one."
            )
        said = list(self.means.values())
        for needed, what in (("name", "which original"), ("width", "how wide the file is")):
            if needed not in said:
                raise ValueError(f"Nothing in the template says {what}.")
        if twice := next((m for m in said if said.count(m) > 1), None):
            raise ValueError(f"Two variables of the template stand for {twice.replace('_', ' ')}.")
        if 0 < len(set(CROP) & set(said)) < len(CROP):
            raise ValueError(
                "A cut has four numbers: where it begins, across and down, and its size."
            )
        return self

    @property
    def cuts(self) -> bool:
        """Whether it can be asked for a part of an original."""
        return set(CROP) <= set(self.means.values())

    @property
    def negotiates(self) -> bool:
        """Whether the format is left to it and the browser."""
        return "format" not in self.means.values()

    @property
    def is_signed(self) -> bool:
        return "signature" in self.means.values()
