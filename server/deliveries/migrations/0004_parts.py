"""What deliveries were asked for, as placements of parts."""

from common.stored import rewritten
from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("deliveries", "0003_claims")]

    operations = [rewritten("deliveries", "Delivery", "asked")]
