"""How the web server runs, found by gunicorn in this folder. Address and number of workers come
from the command line or `GUNICORN_CMD_ARGS`."""

import os

from gunicorn.workers import gthread

bind = f"127.0.0.1:{os.environ.get('SKYPANE_PORT') or 8420}"
workers = 2
threads = 4
timeout = 120
keepalive = 75
worker_tmp_dir = "/dev/shm"
control_socket_disable = True
# in `./run dev` a saved file ends the workers, and others read it
reload = os.environ.get("SKYPANE_DEBUG") == "1"
# read once for all workers: they are there sooner, and share the memory
preload_app = not reload

#: A connection that nobody asks on is not waited for as long as gunicorn would: a browser opens
#: another one.
gthread.STOP_KEEPALIVE_LINGER = 0.5

#: After a body of more bytes the connection ends and says so: an answer may come before all of it
#: is read, and the rest would be waited for (RFC 9112 §9.3 and §9.6).
MOST_KEPT_BODY = 1_000_000


def pre_request(worker, req):
    length = next((value for name, value in req.headers if name == "CONTENT-LENGTH"), "0")
    if not length.isdigit() or int(length) > MOST_KEPT_BODY:
        req.force_close()
