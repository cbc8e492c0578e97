"""Database fields for the core's nouns: JSON with a version, lifted when it is read (see
`skypane.model.stored`)."""

from __future__ import annotations

from typing import Any

from django.db import models
from django.db.models.expressions import Expression
from skypane.model import stored


class NounField(models.JSONField):
    """A JSON column that holds one kind of noun. Code sees the present version without its
    number."""

    def __init__(self, *args: Any, kind: stored.Kind = "written", **kwargs: Any) -> None:
        self.kind = kind
        super().__init__(*args, **kwargs)

    def deconstruct(self) -> Any:
        name, path, args, kwargs = super().deconstruct()
        return name, path, args, {**kwargs, "kind": self.kind}

    def from_db_value(self, value: Any, expression: Expression, connection: Any) -> Any:
        found = super().from_db_value(value, expression, connection)
        return stored.lifted(self.kind, found) if isinstance(found, dict | list) else found

    def get_prep_value(self, value: Any) -> Any:
        prepared = super().get_prep_value(value)
        return stored.stored(prepared) if isinstance(prepared, dict | list) else prepared


def rewritten(app: str, name: str, *fields: str) -> Any:
    """A migration step: every row's nouns in the present version. Going back leaves them: older
    code reads what it knows."""
    from django.db import migrations

    def forwards(apps: Any, schema_editor: Any) -> None:
        for row in apps.get_model(app, name).objects.iterator():
            row.save(update_fields=list(fields))

    return migrations.RunPython(forwards, migrations.RunPython.noop)
