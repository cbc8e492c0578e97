"""Who is signed in, as it is told."""

from __future__ import annotations

from common.problems import Refused
from django.conf import settings
from django.contrib.auth.models import User
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Schema
from ninja.errors import AuthenticationError
from ninja.utils import check_csrf


class Session(Schema):
    """Who is signed in, if anybody, and whether this installation offers the demo designer."""

    name: str | None
    demo: bool


def session_of(request: HttpRequest) -> Session:
    get_token(request)
    name = request.user.get_username() if request.user.is_authenticated else None
    return Session(name=name or None, demo=settings.DEMO)


def person(request: HttpRequest) -> User:
    """Who is signed in. Raises AuthenticationError where nobody is."""
    if not isinstance(request.user, User):
        raise AuthenticationError
    return request.user


def guard(request: HttpRequest) -> None:
    if check_csrf(request):
        raise Refused("This page is out of date. Load it again.", status=403)
