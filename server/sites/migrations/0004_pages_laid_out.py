"""Pages have a head and an order per span; a placement can be at home on several."""

import common.stored
from django.db import migrations


class Migration(migrations.Migration):

    dependencies = [
        ('skypane_sites', '0003_people'),
    ]

    operations = [
        migrations.AddField(
            model_name='page',
            name='layout',
            field=common.stored.NounField(default=dict, kind='page'),
        ),
    ]
