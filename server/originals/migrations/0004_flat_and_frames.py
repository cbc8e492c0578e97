from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("originals", "0003_versions")]

    operations = [
        migrations.AddField("Original", "flat", models.BooleanField(default=False)),
        migrations.AddField("Original", "frames", models.PositiveIntegerField(default=1)),
    ]
