"""Members have roles, and are invited. Whoever was a member before may share the site: nobody loses anything."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

ROLES = [("owner", "Owner"), ("edit", "Edit"), ("look", "Look")]


class Migration(migrations.Migration):
    dependencies = [
        ("accounts", "0001_initial"),
        ("skypane_sites", "0002_versions"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        # the table of members is there already; from now on it is a model of its own
        migrations.SeparateDatabaseAndState(
            database_operations=[],
            state_operations=[
                migrations.CreateModel(
                    name="Membership",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("site", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="memberships", to="skypane_sites.site")),
                        ("user", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, to=settings.AUTH_USER_MODEL)),
                    ],
                    options={"db_table": "skypane_sites_site_members", "ordering": ["id"]},
                ),
                migrations.AlterField(
                    model_name="site",
                    name="members",
                    field=models.ManyToManyField(related_name="sites_of", through="skypane_sites.Membership", to=settings.AUTH_USER_MODEL),
                ),
            ],
        ),
        migrations.AddField(
            model_name="membership",
            name="role",
            field=models.CharField(choices=ROLES, default="owner", max_length=5),
        ),
        migrations.AlterField(
            model_name="membership",
            name="role",
            field=models.CharField(choices=ROLES, default="edit", max_length=5),
        ),
        migrations.AddConstraint(
            model_name="membership",
            constraint=models.UniqueConstraint(fields=("site", "user"), name="one_role_per_member"),
        ),
        migrations.CreateModel(
            name="Invitation",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("role", models.CharField(choices=ROLES, default="edit", max_length=5)),
                ("link", models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name="invitation", to="accounts.link")),
                ("site", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="invitations", to="skypane_sites.site")),
            ],
            options={"ordering": ["id"]},
        ),
    ]
