"""What can go wrong, each with a sentence a designer understands and the remedy.

The server turns these into RFC 9457 problem documents; the command line into `{"error": …}`.
"""

from __future__ import annotations

import errno
from typing import Any

from pydantic import Field, ValidationError


class SkyPaneError(Exception):
    """Base of all errors that are told to the user. `str(error)` is the sentence; `field` names
    where, if anywhere."""

    def __init__(self, sentence: str, *, field: str | None = None) -> None:
        super().__init__(sentence)
        self.field = field


class InvalidPlan(SkyPaneError, ValueError):
    """A site, frame or treatment that cannot be computed: breakpoints out of order, a frame of no
    size."""


class NotThere(SkyPaneError):
    """What is asked for is not there: no such span, no picture in it."""


class UnreadablePicture(SkyPaneError):
    """Bytes that are not a picture that can be worked with: text, truncated, empty, too large."""


class NoRoom(SkyPaneError):
    """The disk is full."""

    SENTENCE = (
        "There is no room left on the disk for this. Nothing was kept; free some room, then try"
        " again."
    )

    #: The same where many files are made one after the other.
    IN_PART = (
        "There is no room left on the disk. The files made so far are kept; free some room, then"
        " export again: only the others are made."
    )

    def __init__(self, sentence: str = SENTENCE, *, field: str | None = None) -> None:
        super().__init__(sentence, field=field)

    @staticmethod
    def means(error: OSError) -> bool:
        """Whether an error of the operating system says so: no space, or a quota that is used
        up."""
        return error.errno in (errno.ENOSPC, errno.EDQUOT)


class Busy(SkyPaneError):
    """Everybody is at work; the same request may be taken in a moment."""


class TooDemanding(UnreadablePicture):
    """A picture that takes more time or memory to open than is allowed here."""


_WRITTEN: dict[str, str] = {}


def written(pattern: str, sentence: str, **bounds: Any) -> Any:
    """A field that holds a text of a pattern; `sentence` tells people how to write it."""
    _WRITTEN[pattern] = sentence
    return Field(pattern=pattern, **bounds)


def sentence_of(error: ValidationError) -> str:
    """What is wrong with a value, in words: the first of what was found, with the field where that
    helps."""
    first = error.errors(include_url=False)[0]
    where = ".".join(str(part) for part in first["loc"])
    said = say(first)
    return f"{where}: {said}" if where and said.startswith("It ") else said


def say(error: Any) -> str:
    """One finding of the validator as a sentence. `error` is an entry of
    `ValidationError.errors()`."""
    message = str(error.get("msg", "")).removeprefix("Value error, ")
    context = error.get("ctx") or {}
    match error.get("type"):
        case "greater_than":
            return f"It must be more than {context.get('gt'):g}."
        case "greater_than_equal":
            return f"It must be at least {context.get('ge'):g}."
        case "less_than":
            return f"It must be less than {context.get('lt'):g}."
        case "less_than_equal":
            return f"It must be at most {context.get('le'):g}."
        case "missing":
            return "It is missing."
        case "extra_forbidden":
            return "It is not known here."
        case "string_too_short":
            return "It must not be empty."
        case "string_too_long":
            return f"It is too long: at most {context.get('max_length')} characters."
        case "too_long":
            return f"It holds too many: at most {context.get('max_length')}."
        case "too_short":
            return f"It holds too few: at least {context.get('min_length')}."
        case "finite_number" | "float_parsing" | "float_type":
            return "It must be a number that can be worked with."
        case "int_parsing" | "int_type" | "int_parsing_size" | "int_from_float":
            return "It must be a whole number."
        case "bool_type" | "bool_parsing":
            return "It must be true or false."
        case "string_type" | "string_unicode":
            return "It must be a text."
        case "list_type" | "tuple_type" | "set_type":
            return "It must be a list."
        case "dict_type" | "model_type" | "model_attributes_type":
            return "It must be an object with named fields."
        case "string_pattern_mismatch":
            return _WRITTEN.get(context.get("pattern", ""), "It is not written as it has to be.")
        case "literal_error" | "union_tag_invalid":
            return f"It must be one of {context.get('expected') or context.get('expected_tags')}."
        case "union_tag_not_found":
            return "It must say of which kind it is."
        case "json_invalid":
            return "It is not JSON."
        case "value_error":
            return message if message.endswith(".") else f"{message}."
    return "It cannot be used as it is."
