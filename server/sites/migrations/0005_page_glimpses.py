"""A page as it was last read is kept beside it."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('skypane_sites', '0004_pages_laid_out'),
    ]

    operations = [
        migrations.AddField(
            model_name='page',
            name='glimpse',
            field=models.JSONField(default=None, editable=False, null=True),
        ),
    ]
