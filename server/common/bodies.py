"""Request bodies: JSON as RFC 8259 has it, and no field that the API does not know."""

from __future__ import annotations

import json
from typing import Any

from django.http import HttpRequest
from ninja import Schema
from ninja.errors import HttpError
from ninja.parser import Parser
from pydantic import ConfigDict
from skypane import texts
from skypane.numerals import whole
from skypane.texts import holds_nul


class Body(Schema):
    """Base of everything that is sent to the API: what is not known is refused rather than silently
    lost."""

    model_config = ConfigDict(extra="forbid")


class Json(Parser):
    """JSON that can be stored and given out again."""

    def parse_body(self, request: HttpRequest) -> Any:
        raw = request.body
        try:
            found = json.loads(raw, parse_constant=_no_number, parse_int=whole)
            if b"\\ud" in raw or b"\\uD" in raw:  # half of a pair of surrogates is no text
                json.dumps(found, ensure_ascii=False).encode()
            if b"\\u0000" in raw and holds_nul(found):
                raise _unreadable(request, texts.SENTENCE)
        except UnicodeEncodeError:
            raise _unreadable(
                request, "A text in this request is broken: it holds half of a character."
            ) from None
        except (ValueError, RecursionError) as error:
            raise _unreadable(
                request, f"This request is no JSON that can be read: {_said(error)}."
            ) from None
        return found


def _unreadable(request: HttpRequest, sentence: str) -> HttpError:
    """The framework says something of its own about every error of a parser; the sentence travels
    with the request."""
    request.why_unreadable = sentence  # type: ignore[attr-defined]  # a mark of ours on it
    return HttpError(400, sentence)


def _no_number(name: str) -> float:
    raise ValueError(f"{name} is no number in JSON")


def _said(error: Exception) -> str:
    if isinstance(error, json.JSONDecodeError):
        return f"{error.msg.lower()}, at character {error.pos + 1}"
    if isinstance(error, UnicodeDecodeError):
        return "it is not in UTF-8"
    return str(error) if isinstance(error, ValueError) else "it is nested too deeply"
