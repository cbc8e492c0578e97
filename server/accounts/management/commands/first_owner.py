"""Print the one-time link by which the first person of an installation comes in."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand
from django.db import transaction

from accounts.models import Link


class Command(BaseCommand):
    help = "Print a link that makes the first owner. Says nothing once there is somebody."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("address", help="where the installation answers, as https://…")

    def handle(self, *args: Any, address: str, **options: Any) -> None:
        with transaction.atomic():
            if get_user_model().objects.exists():
                return
            Link.objects.filter(purpose=Link.Purpose.OWNER).delete()
            _, token = Link.make(Link.Purpose.OWNER)
        self.stdout.write(f"{address.rstrip('/')}/welcome/{token}")
