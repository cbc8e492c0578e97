"""The application for a WSGI server, with what its first answers would load loaded."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
application = get_wsgi_application()

# Django reads the addresses, and NumPy a part of itself, with the first request that needs them
import numpy.ma  # noqa: E402, F401
from skypane.words.faces import load_all  # noqa: E402

import config.urls  # noqa: E402, F401

load_all()
