"""Where files are taken, and how large they may be: said beside each endpoint that takes one, asked
before the first byte of a request's body is read."""

from __future__ import annotations

from collections.abc import Callable
from importlib import import_module

from django.conf import settings

#: By the end of an address, the most bytes that a file may have there.
_TAKEN: dict[str, Callable[[], int]] = {}


def takes_file(address: str, most_bytes: Callable[[], int]) -> str:
    """Says that a file is taken at an address, and gives that address back."""
    _TAKEN[_end(address)] = most_bytes
    return address


def most_bytes_at(path: str) -> int | None:
    """The most bytes that a file may have at a path; None where none is taken."""
    import_module(settings.ROOT_URLCONF)  # all endpoints have spoken then
    most = _TAKEN.get(_end(path))
    return None if most is None else most()


def _end(address: str) -> str:
    return address.rsplit("/", 1)[-1]


def most_upload_bytes() -> int:
    """The most bytes that one picture may have."""
    most: int = settings.MOST_UPLOAD_BYTES
    return most
