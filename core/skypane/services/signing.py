"""Signed addresses: a service answers only those that somebody with its key has written (HMAC, RFC
2104, with SHA-256)."""

from __future__ import annotations

import hashlib
import hmac
from collections.abc import Mapping

#: What stands in the place of the signature while it is worked out.
UNSIGNED = "unsigned"


def signature(address: str, key: bytes) -> str:
    """The signature of an address below its host, in which `UNSIGNED` stands where it will."""
    return hmac.new(key, address.encode(), hashlib.sha256).hexdigest()[:32]


def is_genuine(address: str, said: str, key: str, keys: Mapping[str, bytes]) -> bool:
    """Whether `said` is the signature of an address by the key of that name. Of keys that take
    turns the older ones still hold as long as they are among `keys`."""
    secret = keys.get(key)
    if secret is None or not said:
        return False
    return hmac.compare_digest(signature(address.replace(said, UNSIGNED), secret), said)
