"""``write_schemas``: docs/openapi.json and the page's types from the interface as it is."""

import json
import subprocess

from django.conf import settings
from django.core.management import BaseCommand

from havrin_server.api import api


def openapi_text() -> str:
    """Return the OpenAPI document as it is stored in docs/."""
    return json.dumps(api.get_openapi_schema(path_prefix="/api/"), indent=1, ensure_ascii=False, default=str) + "\n"


class Command(BaseCommand):
    """Write the schema and generate the page's types from it."""

    help = __doc__

    def handle(self, *args: object, **options: object) -> None:
        """Run."""
        (settings.ROOT / "docs").mkdir(exist_ok=True)
        (settings.ROOT / "docs" / "openapi.json").write_text(openapi_text(), encoding="utf-8")
        subprocess.run(["npm", "run", "-s", "types"], cwd=settings.ROOT / "web", check=True)
