"""A cache that is only ever a help: where Redis is away, everything is read from the database."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable
from typing import Any

from django.core.cache.backends.redis import RedisCache
from redis.exceptions import RedisError

log = logging.getLogger(__name__)

#: Redis is not asked again for so long after it did not answer, so that no request waits for it in
#: vain.
REST_SECONDS = 3.0


def _forgiving(name: str, without: Callable[..., Any]) -> Callable[..., Any]:
    def method(self: ForgivingRedisCache, *args: Any, **kwargs: Any) -> Any:
        if time.monotonic() >= self.asked_again_at:
            try:
                return getattr(super(ForgivingRedisCache, self), name)(*args, **kwargs)
            except (RedisError, OSError) as error:
                type(self).asked_again_at = time.monotonic() + REST_SECONDS
                log.warning("The cache is away: %s", error)
        return without(*args, **kwargs)

    method.__name__ = name
    return method


class ForgivingRedisCache(RedisCache):
    """As Django's, but what it cannot answer it does not have, and what it cannot keep it does
    not."""

    asked_again_at = 0.0

    get = _forgiving("get", lambda key, default=None, version=None: default)
    get_many = _forgiving("get_many", lambda keys, version=None: {})
    has_key = _forgiving("has_key", lambda key, version=None: False)
    set = _forgiving("set", lambda *args, **kwargs: None)
    set_many = _forgiving("set_many", lambda *args, **kwargs: [])
    add = _forgiving("add", lambda *args, **kwargs: True)
    touch = _forgiving("touch", lambda *args, **kwargs: False)
    delete = _forgiving("delete", lambda *args, **kwargs: False)
    delete_many = _forgiving("delete_many", lambda *args, **kwargs: None)
    clear = _forgiving("clear", lambda *args, **kwargs: None)
