"""Print the OpenAPI document: `python -m config.openapi`. The TypeScript client is generated from
it."""

import json
import os

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
    import django

    django.setup()
    from config.api import api

    print(json.dumps(api.get_openapi_schema(), indent=1, sort_keys=True, ensure_ascii=False))
