"""The keys that addresses of the image service are signed with.

They are named in the settings, the one in use first; a key that is to be given up stays behind it
until no address that it signed is in use any more. The keys themselves follow from this
installation's secret, and are stored nowhere."""

from __future__ import annotations

import hashlib
import hmac
from collections.abc import Mapping

from django.conf import settings
from skypane.errors import InvalidPlan
from skypane.model import Site
from skypane.services.signing import UNSIGNED, signature


def key_names() -> tuple[str, ...]:
    """The names of the keys that hold, the one in use first."""
    return tuple(settings.SERVICE_KEYS)


def keys() -> Mapping[str, bytes]:
    secret = settings.SECRET_KEY.encode()
    return {
        name: hmac.new(secret, f"image service {name}".encode(), hashlib.sha256).digest()
        for name in key_names()
    }


def check_key(site: Site) -> None:
    """Raises InvalidPlan where addresses would be signed with a key that is not there."""
    service = site.hand_over.service
    if service is not None and service.is_signed and service.key not in key_names():
        raise InvalidPlan(
            f"There is no key called {service.key or 'nothing'} in this installation. It has"
            f" {', '.join(key_names())}.",
            field="plan.hand_over.service",
        )


def sign(address: str, key: str) -> str:
    """The signature of an address below its host; where there is no such key it stays unsigned."""
    secret = keys().get(key)
    return UNSIGNED if secret is None else signature(address, secret)
