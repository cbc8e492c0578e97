"""Runs of a page and of a whole site; what files turned out to be."""

import django.db.models.deletion
from common.stored import rewritten
from django.db import migrations, models


def with_sites(apps, schema_editor):
    Delivery = apps.get_model("deliveries", "Delivery")
    for row in Delivery.objects.select_related("placement__page").iterator():
        row.site_id = row.placement.page.site_id
        row.save(update_fields=["site"])


class Migration(migrations.Migration):
    dependencies = [
        ("deliveries", "0004_parts"),
        ("placements", "0005_versions_of_a_history"),
        ("skypane_sites", "0003_people"),
    ]

    operations = [
        migrations.AddField(
            "Delivery",
            "site",
            models.ForeignKey(
                null=True,
                on_delete=django.db.models.deletion.CASCADE,
                related_name="deliveries",
                to="skypane_sites.site",
            ),
        ),
        migrations.AddField(
            "Delivery",
            "scope",
            models.CharField(
                choices=[("placement", "Placement"), ("page", "Page"), ("site", "Site")],
                default="placement",
                max_length=10,
            ),
        ),
        migrations.AddField(
            "Delivery",
            "page",
            models.ForeignKey(
                null=True,
                on_delete=django.db.models.deletion.CASCADE,
                related_name="deliveries",
                to="skypane_sites.page",
            ),
        ),
        migrations.AlterField(
            "Delivery",
            "placement",
            models.ForeignKey(
                null=True,
                on_delete=django.db.models.deletion.CASCADE,
                related_name="deliveries",
                to="placements.placement",
            ),
        ),
        migrations.AddField("Delivery", "began", models.DateTimeField(null=True)),
        migrations.RunPython(with_sites, migrations.RunPython.noop),
        migrations.AlterField(
            "Delivery",
            "site",
            models.ForeignKey(
                on_delete=django.db.models.deletion.CASCADE,
                related_name="deliveries",
                to="skypane_sites.site",
            ),
        ),
        migrations.AddField(
            "Rendition", "quality", models.PositiveSmallIntegerField(null=True)
        ),
        migrations.AddField("Rendition", "ssim", models.FloatField(null=True)),
        migrations.AddField(
            "Rendition", "encodes", models.PositiveSmallIntegerField(default=1)
        ),
        migrations.AddField("DeliveryFile", "left_out", models.BooleanField(default=False)),
        migrations.AddField(
            "DeliveryFile", "why", models.CharField(blank=True, max_length=200)
        ),
        migrations.AddField("DeliveryFile", "work", models.PositiveBigIntegerField(default=0)),
        rewritten("deliveries", "Delivery", "asked"),
    ]
