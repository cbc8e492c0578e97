"""What a history is a line of is called a version."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("placements", "0004_parts")]

    operations = [
        migrations.RenameModel(old_name="Step", new_name="Version"),
        migrations.AlterField(
            model_name="version",
            name="placement",
            field=models.ForeignKey(
                on_delete=django.db.models.deletion.CASCADE,
                related_name="versions",
                to="placements.placement",
            ),
        ),
        # the new one first: the foreign key needs one of them as its index
        migrations.AddConstraint(
            model_name="version",
            constraint=models.UniqueConstraint(
                fields=("placement", "position"), name="one_version_per_position"
            ),
        ),
        migrations.RemoveConstraint(model_name="version", name="one_step_per_position"),
    ]
