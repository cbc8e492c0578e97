"""What a password has to be."""

from __future__ import annotations

from typing import Annotated

from common.problems import Refused
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from pydantic import Field

MOST_CHARACTERS = 4096
NewPassword = Annotated[str, Field(min_length=1, max_length=MOST_CHARACTERS)]


def check_password(password: str, field: str, user: User | None = None) -> None:
    """Raises Refused, in words, for one that is too easy to guess."""
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise Refused(" ".join(error.messages), field=field) from None
