"""Errors as problem documents (RFC 9457): what is wrong, where, and what to do."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from functools import cache
from typing import Any

from botocore.exceptions import BotoCoreError, ClientError
from django.conf import settings
from django.core.exceptions import ObjectDoesNotExist, RequestDataTooBig, SuspiciousOperation
from django.db import DatabaseError, DataError, InterfaceError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse, UnreadablePostError
from django.http.multipartparser import MultiPartParserError
from django.http.request import RawPostDataException
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, AuthorizationError, HttpError, ValidationError
from pydantic import ValidationError as ModelError
from skypane.errors import Busy, NoRoom, NotThere, SkyPaneError, say

from common.db import (
    AWAY,
    DEADLOCK,
    FULL,
    ITS_OWNER_IS_GONE,
    LOCK_WAIT,
    STILL_HELD,
    code_of,
)


class FieldProblem(Schema):
    field: str
    sentence: str


class Problem(Schema):
    """A problem document. `errors` says which fields are meant, `theirs` carries the newer version
    of a conflict."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    errors: list[FieldProblem] = []
    theirs: Any = None


TITLES = {
    400: "The request cannot be read",
    401: "Not signed in",
    403: "Not allowed",
    404: "Not here",
    409: "Changed meanwhile",
    405: "Not taken here",
    411: "Without a length",
    413: "Too large",
    415: "Not of the right kind",
    422: "Cannot be used as it is",
    429: "Too many tries",
    503: "Not to be reached at this moment",
    507: "No room left",
}


def problem(
    status: int, detail: str, errors: list[tuple[str, str]] | None = None, theirs: Any = None
) -> HttpResponse:
    body = Problem(
        title=TITLES.get(status, "Something went wrong"),
        status=status,
        detail=detail,
        errors=[FieldProblem(field=f, sentence=s) for f, s in errors or []],
        theirs=theirs,
    )
    return JsonResponse(
        body.model_dump(mode="json", exclude_none=True),
        status=status,
        content_type="application/problem+json",
    )


def locked_out(
    request: HttpRequest, response: HttpResponse | None, credentials: object
) -> HttpResponse:
    """What somebody is told who tried too many passwords."""
    return problem(
        429, "Too many tries with a wrong password. Wait a quarter of an hour, then try again."
    )


class Conflict(Exception):
    """Somebody saved a newer revision; `theirs` is it, ready for JSON, and `differs` what differs,
    in a few words each."""

    def __init__(self, detail: str, theirs: Any, differs: list[str] | None = None) -> None:
        super().__init__(detail)
        self.theirs, self.differs = theirs, differs or []


class Refused(Exception):
    """A request that is understood and refused, with status, sentence and field."""

    def __init__(self, sentence: str, *, status: int = 422, field: str = "") -> None:
        super().__init__(sentence)
        self.status, self.field = status, field


#: Per field whose value is of one of several kinds, the names by which these are told apart.
Tags = Mapping[str, Collection[str]]


def tags_of(schema: Mapping[str, Any]) -> Tags:
    """The tags of all unions in an OpenAPI document (its 3.1, "Discriminator Object")."""
    found: dict[str, set[str]] = {}

    def mapped(of: Any) -> set[str]:
        if not isinstance(of, Mapping):
            return set()
        mine = set(of.get("discriminator", {}).get("mapping", ()))
        others = [*of.get("anyOf", ()), *of.get("oneOf", ()), of.get("items")]
        return mine.union(*map(mapped, others))

    for noun in schema["components"]["schemas"].values():
        for name, of in noun.get("properties", {}).items():
            if tags := mapped(of):
                found.setdefault(name, set()).update(tags)
    return found


def _in_request(location: Sequence[Any]) -> Sequence[Any]:
    """A field's path without what only the machinery knows: where the request holds it, and the
    parameter that a body is given to."""
    of, *rest = location
    return rest[1:] if of == "body" and len(rest) > 1 else rest


def _where(location: Sequence[Any], tags: Tags) -> str:
    """A field's path, without which of its kinds was tried below a field."""
    path: list[str] = []
    for p in location:
        if not (path and p in tags.get(path[-1], ())):
            path.append(str(p))
    return ".".join(path)


def from_validation(found: list[tuple[str, str]]) -> HttpResponse:
    """Fields and sentences as a problem; the first of them is what it says."""
    first = found[0] if found else ("", "The request cannot be used.")
    named = [part for part in first[0].split(".") if part and not part.isdigit()]
    where = named[-1].replace("_px", "").replace("_", " ") if named else ""
    said = (
        first[1]
        if not first[1].startswith("It ") or not where
        else f"{where.capitalize()}: {first[1]}"
    )
    return problem(422, said, found)


#: Of the core's errors, those that are no 422.
STATUS: list[tuple[type[SkyPaneError], int]] = [(NoRoom, 507), (Busy, 503), (NotThere, 404)]


def install(api: NinjaAPI) -> None:
    """Turn every error that can leave an endpoint into a problem document."""

    @cache
    def tags() -> Tags:
        return tags_of(api.get_openapi_schema(path_prefix=""))

    @api.exception_handler(SkyPaneError)
    def core(request: HttpRequest, error: SkyPaneError) -> HttpResponse:
        status = next((s for kind, s in STATUS if isinstance(error, kind)), 422)
        return problem(status, str(error), [(error.field, str(error))] if error.field else None)

    @api.exception_handler(ValidationError)
    def request_errors(request: HttpRequest, error: ValidationError) -> HttpResponse:
        return from_validation(
            [(_where(_in_request(e["loc"]), tags()), say(e)) for e in error.errors]
        )

    @api.exception_handler(ModelError)
    def model_errors(request: HttpRequest, error: ModelError) -> HttpResponse:
        return from_validation([(_where(e["loc"], tags()), say(dict(e))) for e in error.errors()])

    @api.exception_handler(Conflict)
    def conflicts(request: HttpRequest, error: Conflict) -> HttpResponse:
        return problem(409, str(error), [("", said) for said in error.differs], theirs=error.theirs)

    @api.exception_handler(Refused)
    def refused(request: HttpRequest, error: Refused) -> HttpResponse:
        return problem(
            error.status, str(error), [(error.field, str(error))] if error.field else None
        )

    @api.exception_handler(AuthenticationError)
    def not_signed_in(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return problem(401, "Sign in first.")

    @api.exception_handler(AuthorizationError)
    def not_allowed(request: HttpRequest, error: AuthorizationError) -> HttpResponse:
        return problem(403, "This is not allowed.")

    @api.exception_handler(Http404)
    def not_here(request: HttpRequest, error: Http404) -> HttpResponse:
        return problem(404, "There is nothing here, or it is not yours to see.")

    @api.exception_handler(ObjectDoesNotExist)
    def gone(request: HttpRequest, error: ObjectDoesNotExist) -> HttpResponse:
        return problem(404, GONE)

    @api.exception_handler(HttpError)
    def other(request: HttpRequest, error: HttpError) -> HttpResponse:
        return problem(error.status_code, getattr(request, "why_unreadable", str(error)))

    @api.exception_handler(DatabaseError)
    @api.exception_handler(InterfaceError)
    def database(request: HttpRequest, error: Exception) -> HttpResponse:
        return of_database(error)

    @api.exception_handler(BotoCoreError)
    @api.exception_handler(ClientError)
    def store(request: HttpRequest, error: Exception) -> HttpResponse:
        return problem(
            503,
            "The store of the files cannot be reached at this moment. Nothing was lost; try again"
            " in a moment.",
        )

    @api.exception_handler(OSError)
    def files(request: HttpRequest, error: OSError) -> HttpResponse:
        if NoRoom.means(error):
            return problem(507, NoRoom.SENTENCE)
        if isinstance(error, FileNotFoundError):
            return problem(
                404,
                "This file is no longer stored here. Bring the original again, or export again.",
            )
        raise error

    @api.exception_handler(RequestDataTooBig)
    def too_big(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
        return problem(
            413, f"This request has more than {settings.DATA_UPLOAD_MAX_MEMORY_SIZE / 1e6:.0f} MB."
        )

    @api.exception_handler(SuspiciousOperation)
    @api.exception_handler(UnreadablePostError)
    @api.exception_handler(MultiPartParserError)
    def unreadable(request: HttpRequest, error: Exception) -> HttpResponse:
        return problem(
            400, "The request cannot be read: it ended early, or is not made as it has to be."
        )

    @api.exception_handler(RawPostDataException)
    def form(request: HttpRequest, error: RawPostDataException) -> HttpResponse:
        return problem(415, "No form is taken here: send JSON.")

    @api.exception_handler(UnicodeEncodeError)
    def half_characters(request: HttpRequest, error: UnicodeEncodeError) -> HttpResponse:
        return problem(400, "A text in this request is broken: it holds half of a character.")


#: What somebody else has removed between two looks at it.
GONE = "What this belongs to has been removed meanwhile. Go back and load it anew."
#: What Django says of a row that is to be written and has gone.
_NOT_WRITTEN = "did not affect any rows"


def of_database(error: Exception) -> HttpResponse:
    """What MariaDB's errors mean to somebody who looks at pictures. Raises what is a fault of
    ours."""
    code = code_of(error)
    if code in (DEADLOCK, LOCK_WAIT):
        return problem(
            503, "Somebody else is saving here at this very moment. Nothing was changed; try again."
        )
    if code == ITS_OWNER_IS_GONE or _NOT_WRITTEN in str(error):
        return problem(404, GONE)
    if code == STILL_HELD:
        return problem(
            409, "Somebody is working on this at the very moment. Nothing was removed; try again."
        )
    if code in FULL:
        return problem(507, NoRoom.SENTENCE)
    if code in AWAY or isinstance(error, InterfaceError):
        return problem(
            503,
            "The database cannot be reached at this moment. Nothing was changed; try again in a"
            " moment.",
        )
    if isinstance(error, DataError):
        return problem(422, "A value is larger than what can be stored. Give a smaller one.")
    raise error
