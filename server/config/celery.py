"""The queue. It holds no truth: rows say what is to be done, messages only wake a worker up."""

import os

from celery import Celery

from config import broker

broker.mend()
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
app = Celery("skypane")
app.config_from_object("django.conf:settings", namespace="CELERY")
app.autodiscover_tasks()
