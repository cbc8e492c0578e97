"""Signing in and out: Django's session cookie, CSRF on every change."""

from __future__ import annotations

from typing import Annotated

from config.bodies import Body
from config.problems import Problem, Refused
from django.conf import settings
from django.contrib.auth import authenticate, get_user_model, login, logout
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Router, Schema
from ninja.utils import check_csrf
from pydantic import Field

router = Router()


class Session(Schema):
    """Who is signed in, if anybody, and whether this installation offers the demo designer."""

    name: str | None
    demo: bool


class Credentials(Body):
    name: Annotated[str, Field(max_length=150)]
    password: Annotated[str, Field(max_length=4096)]


def _session(request: HttpRequest) -> Session:
    get_token(request)
    name = request.user.get_username() if request.user.is_authenticated else None
    return Session(name=name or None, demo=settings.DEMO)


def _guard(request: HttpRequest) -> None:
    if check_csrf(request):
        raise Refused("This page is out of date. Load it again.", status=403)


@router.get("/session", response=Session, auth=None)
def read_session(request: HttpRequest) -> Session:
    return _session(request)


@router.post(
    "/session", response={200: Session, 401: Problem, 403: Problem, 429: Problem}, auth=None
)
def sign_in(request: HttpRequest, credentials: Credentials) -> Session:
    _guard(request)
    user = authenticate(request, username=credentials.name, password=credentials.password)
    if user is None:
        raise Refused("Name and password do not match. Try again.", status=401, field="password")
    login(request, user)
    return _session(request)


@router.post("/session/demo", response={200: Session, 403: Problem}, auth=None)
def sign_in_demo(request: HttpRequest) -> Session:
    _guard(request)
    user = get_user_model().objects.filter(username="demo").first() if settings.DEMO else None
    if user is None:
        raise Refused(
            "This is no demo installation. Sign in with your name and password.", status=403
        )
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    return _session(request)


@router.delete("/session", response=Session)
def sign_out(request: HttpRequest) -> Session:
    logout(request)
    return _session(request)
