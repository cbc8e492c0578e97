"""How often somebody may try a password.

Counted are tries that the database would take for the same: names without case, accents and
trailing spaces. Per name and address, and more leniently per name from all addresses and per
address for all names. Behind a proxy everybody has the proxy's address: the setting
`SKYPANE_PROXIES` says how many of ours stand before the application, and the address is taken from
what they forwarded; where it was forgotten, addresses are not counted, so that nobody is locked out
with a stranger.
"""

from __future__ import annotations

import ipaddress
import unicodedata
from typing import Any

from axes.handlers.database import AxesDatabaseHandler
from django.conf import settings
from django.contrib.auth import get_user_model
from django.db.models import Sum
from django.http import HttpRequest

#: So many times as many tries are let through from one address, or for one name from everywhere, as
#: for one name from one address.
LENIENT = 5


def counted_name(request: HttpRequest, credentials: dict[str, Any] | None) -> str:
    """The name as its account has it, where the database finds one; else without what the database
    does not tell apart."""
    name = str((credentials or {}).get("username") or "")[:150]
    known = (
        get_user_model().objects.filter(username=name).values_list("username", flat=True).first()
    )
    if known is not None:
        return str(known)
    plain = (
        unicodedata.normalize("NFKD", name.casefold()).encode("ascii", "ignore").decode().strip()
    )
    return plain or name.strip() or "-"


def client_address(request: HttpRequest) -> str:
    """Who asks: the address that our outermost proxy saw, or that of the connection."""
    forwarded = [
        part.strip()
        for part in request.META.get("HTTP_X_FORWARDED_FOR", "").split(",")
        if part.strip()
    ]
    found = (
        forwarded[-settings.PROXIES]
        if 0 < settings.PROXIES <= len(forwarded)
        else request.META.get("REMOTE_ADDR", "")
    )
    try:
        return str(ipaddress.ip_address(found))
    except ValueError:
        return "0.0.0.0"


def address_is_known(request: HttpRequest) -> bool:
    """Whether the address says who asks: not where a proxy stands before us that nobody has told us
    of."""
    if settings.PROXIES or "HTTP_X_FORWARDED_FOR" not in request.META:
        return True
    try:
        return ipaddress.ip_address(request.META.get("REMOTE_ADDR", "")).is_global
    except ValueError:
        return False


class Throttle(AxesDatabaseHandler):  # type: ignore[misc]  # axes ships no types
    """Counts in the database, which is there when the cache is not."""

    def get_failures(self, request: HttpRequest, credentials: dict[str, Any] | None = None) -> int:
        both, name, address = (
            found.aggregate(n=Sum("failures_since_start"))["n"] or 0
            for found in self.get_user_attempts(request, credentials)
        )
        return max(both, name // LENIENT, address // LENIENT if address_is_known(request) else 0)
