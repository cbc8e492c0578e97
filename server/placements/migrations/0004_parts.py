"""Placements, and every step of their histories, as a kind with parts."""

from common.stored import rewritten
from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("placements", "0003_versions")]

    operations = [
        rewritten("placements", "Placement", "body"),
        rewritten("placements", "Step", "body"),
    ]
