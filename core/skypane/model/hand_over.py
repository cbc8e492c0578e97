"""How code and files are handed over."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from skypane.model.host import Host
from skypane.model.service import Service
from skypane.values import Noun

#: What code can be written as: HTML with a style sheet; a typed React component with a CSS module;
#: a fragment of a Django template with a style sheet; all of it as data.
Output = Literal["html", "jsx", "django", "json"]
OUTPUTS: tuple[Output, ...] = ("html", "jsx", "django", "json")


def _each_once(outputs: tuple[Output, ...]) -> tuple[Output, ...]:
    return tuple(o for o in OUTPUTS if o in outputs)


#: What no address holds as it is (RFC 3986 §2), nor what would end a string of CSS or a tag of a
#: template.
_NOT_IN_ADDRESSES = frozenset(" \t\n\r\f\v\"'<>\\^`{}|()")


def _address(said: str) -> str:
    """A folder or the beginning of a URL, which ends in a slash."""
    bad = next((c for c in said if c in _NOT_IN_ADDRESSES or not c.isprintable()), None)
    if bad is not None:
        called = "a space" if bad.isspace() else bad if bad.isprintable() else "a control character"
        raise ValueError(
            f"What stands before the names of files cannot hold {called}. Write a folder like"
            " static/images/ or the beginning of an address like https://example.com/images/."
        )
    if "?" in said or "#" in said:
        raise ValueError(
            "What stands before the names of files is a folder or the beginning of an address,"
            " without ? and #. An image service is named by a template."
        )
    scheme, colon, _ = said.partition(":")
    if colon and "/" not in scheme and scheme.lower() not in ("http", "https"):
        raise ValueError(
            f"Pictures cannot be at {scheme}: … Write an address that begins with https:// or a"
            " folder."
        )
    return said if not said or said.endswith("/") else f"{said}/"


def uploaded_address(said: str) -> str:
    """The address of a file that a host has taken. Raises ValueError with a sentence."""
    bad = next((c for c in said if c.isspace() or c in "\"'<>\\^`{|}" or not c.isprintable()), None)
    if bad is not None or said.endswith(","):
        raise ValueError(
            f"{said[:80]} is no address of a file: it holds a sign that none can hold."
        )
    if not said.lower().startswith(("http://", "https://", "/")):
        raise ValueError(f"{said[:80]} is no address of a file: it begins with https:// or /.")
    return said


#: So many files of a site are known by their address.
MOST_UPLOADED = 20_000


class HandOver(Noun):
    """`outputs` is what goes into a delivery beside its pages. `prefix` stands before the names of
    files in that code: a folder or the beginning of a URL; "" for the folder of the delivery.
    `hashed` names bear a short hash of all that makes the file, so that no cache shows an old one
    for it. `preload`: pages ask for their first picture before anything else.
    `host` says what the system takes that shows the pages. `service` gives files out in the place
    of a folder. `uploaded` has the addresses that a host has given to files, by their names."""

    outputs: Annotated[tuple[Output, ...], Field(max_length=8), AfterValidator(_each_once)] = (
        "html",
    )
    prefix: Annotated[str, Field(max_length=300), AfterValidator(_address)] = ""
    hashed: bool = False
    preload: bool = False
    host: Host = Host()
    service: Service | None = None
    uploaded: Annotated[
        dict[
            Annotated[str, Field(max_length=300)],
            Annotated[str, Field(max_length=1000), AfterValidator(uploaded_address)],
        ],
        Field(max_length=MOST_UPLOADED),
    ] = Field(default_factory=dict)
