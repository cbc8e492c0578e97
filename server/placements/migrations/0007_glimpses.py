"""What lists show of a placement is kept beside it."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('placements', '0006_pages_laid_out'),
    ]

    operations = [
        migrations.AddField(
            model_name='placement',
            name='glimpse',
            field=models.JSONField(default=None, editable=False, null=True),
        ),
    ]
