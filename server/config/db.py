"""What a database that several people write to asks for: locks in one order, and another try where it ends a deadlock.

The order: site, originals by id, placements by id. Rows are locked by their key alone, so that nobody waits for rows of others.
"""

from __future__ import annotations

import random
import time
from collections.abc import Callable, Iterable
from typing import TypeVar

from django.db import Error, connection, models, transaction

T = TypeVar("T")
M = TypeVar("M", bound=models.Model)

#: Codes of MariaDB: a deadlock that was ended, and a lock that was waited for too long.
DEADLOCK, LOCK_WAIT = 1213, 1205
#: Codes that say that the server cannot be reached or goes away.
AWAY = frozenset({1040, 1053, 1077, 1078, 1079, 1152, 1927, 2002, 2003, 2006, 2013, 2055, 4031})
#: Codes that say that the disk is full.
FULL = frozenset({1021, 1114})
TRIES = 6


def code_of(error: BaseException) -> int:
    """MariaDB's code of an error, 0 where there is none."""
    first = error.args[0] if error.args else 0
    return first if isinstance(first, int) else 0


def in_one_go(work: Callable[[], T]) -> T:
    """Run `work` in a transaction; again, from the start, where the database ended a deadlock with somebody else's.

    `work` reads whatever it decides on inside, since the first time may have been undone.
    """
    for attempt in range(1, TRIES + 1):
        try:
            with transaction.atomic():
                return work()
        except Error as error:
            if code_of(error) not in (DEADLOCK, LOCK_WAIT) or attempt == TRIES or connection.in_atomic_block:
                raise
            time.sleep(random.uniform(0.01, 0.05) * 2**attempt)
    raise AssertionError("not reached")


def locked(model: type[M], ids: Iterable[int]) -> dict[int, M]:
    """The rows with these keys, locked one after another in ascending order; those that are gone are left out."""
    found = {}
    for id_ in sorted(set(ids)):
        row = model._default_manager.select_for_update().filter(pk=id_).first()
        if row is not None:
            found[id_] = row
    return found
