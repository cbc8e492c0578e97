"""Signing in and out: Django's session cookie, CSRF on every change."""

from __future__ import annotations

from typing import Annotated

from accounts.passwords import MOST_CHARACTERS, NewPassword, check_password
from accounts.session import Session, guard, person, session_of
from common.bodies import Body
from common.problems import Problem, Refused
from django.conf import settings
from django.contrib.auth import (
    authenticate,
    get_user_model,
    login,
    logout,
    update_session_auth_hash,
)
from django.http import HttpRequest
from ninja import Router, Status
from pydantic import Field

router = Router()


class Credentials(Body):
    name: Annotated[str, Field(max_length=150)]
    password: Annotated[str, Field(max_length=MOST_CHARACTERS)]


@router.get("/session", response=Session, auth=None)
def read_session(request: HttpRequest) -> Session:
    return session_of(request)


@router.post(
    "/session", response={200: Session, 401: Problem, 403: Problem, 429: Problem}, auth=None
)
def sign_in(request: HttpRequest, credentials: Credentials) -> Session:
    guard(request)
    user = authenticate(request, username=credentials.name, password=credentials.password)
    if user is None:
        raise Refused("Name and password do not match. Try again.", status=401, field="password")
    login(request, user)
    return session_of(request)


@router.post("/session/demo", response={200: Session, 403: Problem}, auth=None)
def sign_in_demo(request: HttpRequest) -> Session:
    guard(request)
    user = get_user_model().objects.filter(username="demo").first() if settings.DEMO else None
    if user is None:
        raise Refused(
            "This is no demo installation. Sign in with your name and password.", status=403
        )
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    return session_of(request)


@router.delete("/session", response=Session)
def sign_out(request: HttpRequest) -> Session:
    logout(request)
    return session_of(request)


class PasswordChange(Body):
    old: Annotated[str, Field(max_length=MOST_CHARACTERS)]
    new: NewPassword


@router.post("/session/password", response={204: None, 422: Problem, 429: Problem})
def change_password(request: HttpRequest, payload: PasswordChange) -> Status[None]:
    """Change one's own password. This session stays open, all others end. A wrong present one
    counts as a try, as at sign-in: who finds a browser open does not find the password out."""
    user = person(request)
    if authenticate(request, username=user.get_username(), password=payload.old) is None:
        raise Refused("This is not your present password.", field="old")
    check_password(payload.new, "new", user)
    user.set_password(payload.new)
    user.save()
    update_session_auth_hash(request, user)
    return Status(204, None)
