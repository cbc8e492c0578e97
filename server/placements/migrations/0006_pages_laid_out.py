"""Pages have a head and an order per span; a placement can be at home on several."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('placements', '0005_versions_of_a_history'),
        ('skypane_sites', '0004_pages_laid_out'),
    ]

    operations = [
        migrations.CreateModel(
            name='Home',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('page', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='homes', to='skypane_sites.page')),
                ('placement', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='homes', to='placements.placement')),
            ],
            options={
                'ordering': ['id'],
                'constraints': [models.UniqueConstraint(fields=('page', 'placement'), name='one_home_per_page')],
            },
        ),
    ]
