"""Which cuts were handed over is kept, so that another one has another name."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('placements', '0007_glimpses'),
    ]

    operations = [
        migrations.AddField(
            model_name='placement',
            name='handed',
            field=models.JSONField(default=dict, editable=False),
        ),
    ]
