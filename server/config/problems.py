"""Errors as problem documents (RFC 9457): what is wrong, where, and what to do."""

from __future__ import annotations

from typing import Any

from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, AuthorizationError, HttpError, ValidationError
from pydantic import ValidationError as ModelError
from skypane.errors import SkyPaneError


class FieldProblem(Schema):
    field: str
    sentence: str


class Problem(Schema):
    """A problem document. `errors` says which fields are meant, `theirs` carries the newer version of a conflict."""

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
    413: "Too large",
    422: "Cannot be used as it is",
    429: "Too many tries",
}


def problem(status: int, detail: str, errors: list[tuple[str, str]] | None = None, theirs: Any = None) -> HttpResponse:
    body = Problem(
        title=TITLES.get(status, "Something went wrong"),
        status=status,
        detail=detail,
        errors=[FieldProblem(field=f, sentence=s) for f, s in errors or []],
        theirs=theirs,
    )
    return JsonResponse(body.model_dump(mode="json", exclude_none=True), status=status, content_type="application/problem+json")


def locked_out(request: HttpRequest, response: HttpResponse | None, credentials: object) -> HttpResponse:
    """What somebody is told who tried too many passwords."""
    return problem(429, "Too many tries with a wrong password. Wait a quarter of an hour, then try again.")


class Conflict(Exception):
    """Somebody saved a newer revision; `theirs` is it, ready for JSON, and `differs` what differs, in a few words each."""

    def __init__(self, detail: str, theirs: Any, differs: list[str] | None = None) -> None:
        super().__init__(detail)
        self.theirs, self.differs = theirs, differs or []


class Refused(Exception):
    """A request that is understood and refused, with status, sentence and field."""

    def __init__(self, sentence: str, *, status: int = 422, field: str = "") -> None:
        super().__init__(sentence)
        self.status, self.field = status, field


def _where(location: tuple[Any, ...]) -> str:
    """The field's path without the parts that only the machinery knows."""
    skip = {"body", "query", "path", "payload", "draft", "form", "file"}
    kinds = {"fixed", "share", "full", "columns", "ratio", "vh", "natural", "following"}
    return ".".join(str(p) for i, p in enumerate(location) if not (i < 2 and p in skip) and p not in kinds)


def _say(error: dict[str, Any]) -> str:
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
    return message if message.endswith(".") else f"{message}."


def from_validation(errors: list[dict[str, Any]]) -> HttpResponse:
    found = [(_where(tuple(e["loc"])), _say(e)) for e in errors]
    first = found[0] if found else ("", "The request cannot be used.")
    where = first[0].rpartition(".")[2].replace("_px", "").replace("_", " ") if first[0] else ""
    said = first[1] if not first[1].startswith("It ") or not where else f"{where.capitalize()}: {first[1]}"
    return problem(422, said, found)


def install(api: NinjaAPI) -> None:
    """Turn every error that can leave an endpoint into a problem document."""

    @api.exception_handler(SkyPaneError)
    def core(request: HttpRequest, error: SkyPaneError) -> HttpResponse:
        return problem(422, str(error), [(error.field, str(error))] if error.field else None)

    @api.exception_handler(ValidationError)
    def request_errors(request: HttpRequest, error: ValidationError) -> HttpResponse:
        return from_validation(error.errors)

    @api.exception_handler(ModelError)
    def model_errors(request: HttpRequest, error: ModelError) -> HttpResponse:
        return from_validation([dict(e) for e in error.errors()])

    @api.exception_handler(Conflict)
    def conflicts(request: HttpRequest, error: Conflict) -> HttpResponse:
        return problem(409, str(error), [("", said) for said in error.differs], theirs=error.theirs)

    @api.exception_handler(Refused)
    def refused(request: HttpRequest, error: Refused) -> HttpResponse:
        return problem(error.status, str(error), [(error.field, str(error))] if error.field else None)

    @api.exception_handler(AuthenticationError)
    def not_signed_in(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return problem(401, "Sign in first.")

    @api.exception_handler(AuthorizationError)
    def not_allowed(request: HttpRequest, error: AuthorizationError) -> HttpResponse:
        return problem(403, "This is not allowed.")

    @api.exception_handler(Http404)
    def not_here(request: HttpRequest, error: Http404) -> HttpResponse:
        return problem(404, "There is nothing here, or it is not yours to see.")

    @api.exception_handler(HttpError)
    def other(request: HttpRequest, error: HttpError) -> HttpResponse:
        return problem(error.status_code, str(error))
