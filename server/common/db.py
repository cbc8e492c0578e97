"""What a database that several people write to asks for: locks in one order, and another try where
it ends a deadlock.

The order: site, originals by id, placements by id. Rows are locked by their key alone, so that
nobody waits for rows of others.
"""

from __future__ import annotations

import random
import time
from collections.abc import Callable, Iterable
from typing import TypeVar

from django.db import Error, connection, models, transaction
from django.http import Http404

T = TypeVar("T")
M = TypeVar("M", bound=models.Model)

#: Codes of MariaDB: a deadlock that was ended, and a lock that was waited for too long.
DEADLOCK, LOCK_WAIT = 1213, 1205
#: Codes of what happens to those who add and remove at once: something was added to a row that is
#: being removed; what a new row belongs to has been removed.
STILL_HELD, ITS_OWNER_IS_GONE = 1451, 1452
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
    """Run `work` in a transaction; again, from the start, where the database ended a deadlock with
    somebody else's, or where something was added meanwhile to what it removes.

    `work` reads whatever it decides on inside, since the first time may have been undone.
    """
    for attempt in range(1, TRIES + 1):
        try:
            with transaction.atomic():
                return work()
        except Error as error:
            if (
                code_of(error) not in (DEADLOCK, LOCK_WAIT, STILL_HELD)
                or attempt == TRIES
                or connection.in_atomic_block
            ):
                raise
            time.sleep(random.uniform(0.01, 0.05) * 2**attempt)
    raise AssertionError("not reached")


#: More rows than this are locked with one query, which may touch neighbours for a moment; fewer,
#: one by one.
ONE_BY_ONE = 16


def locked(model: type[M], ids: Iterable[int]) -> dict[int, M]:
    """The rows with these keys, locked in ascending order; those that are gone are left out."""
    wanted = sorted(set(ids))
    rows = model._default_manager.select_for_update()
    if len(wanted) > ONE_BY_ONE:
        return {row.pk: row for row in rows.filter(pk__in=wanted).order_by("pk")}
    return {row.pk: row for id_ in wanted for row in rows.filter(pk=id_)}


def remove_one(model: type[M], id_: int) -> None:
    """Remove a row with all that belongs to it. Raises Http404 where somebody was quicker."""
    in_one_go(lambda: locked_one(model, id_).delete())


def locked_one(model: type[M], id_: int) -> M:
    """One row, locked. Raises Http404 where it has been removed meanwhile."""
    row = locked(model, [id_]).get(id_)
    if row is None:
        raise Http404
    return row
