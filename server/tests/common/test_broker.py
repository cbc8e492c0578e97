"""A connection to the queue that is lost is made anew, whatever is asked of it meanwhile."""

from types import SimpleNamespace

import pytest
from config.celery import app
from kombu.transport.redis import Channel, Transport


def test_what_is_asked_of_a_closed_connection_is_told_to_be_lost():
    """What Celery takes for a lost connection are the transport's own errors."""
    closed = SimpleNamespace(connection=SimpleNamespace(client=None))
    with pytest.raises(Transport.connection_errors, match="has been closed"):
        Channel._connparams(closed)
    with pytest.raises(Transport.connection_errors, match="has been closed"):
        Transport.supports_batch_publish.fget(SimpleNamespace(client=None))


def test_an_open_one_is_asked_as_ever():
    with app.connection_for_write() as connection:
        channel = connection.channel()
        assert channel._connparams()["host"] == "127.0.0.1"
        assert connection.transport.supports_batch_publish in (True, False)
