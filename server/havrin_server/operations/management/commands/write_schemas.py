"""``write_schemas``: what is generated in docs/, and the page's types, from the interface and the circuits as they are."""

import json
import subprocess

from django.conf import settings
from django.core.management import BaseCommand

from havrin_core.machine.circuit.read import circuit_names, shipped_circuit
from havrin_core.search.alike import table_alike
from havrin_core.search.pictures import pictures_of
from havrin_core.wording.manual import manual_text
from havrin_core.wording.phrases import words
from havrin_server.interface import api


def openapi_text() -> str:
    """Return the OpenAPI document as it is stored in docs/."""
    return json.dumps(api.get_openapi_schema(path_prefix="/api/"), indent=1, ensure_ascii=False, default=str) + "\n"


def alike_text() -> str:
    """Return the table of faults that look alike as it is stored in docs/."""
    return table_alike((pictures_of(shipped_circuit(name)) for name in circuit_names()), words)


class Command(BaseCommand):
    """Write the schema and generate the page's types from it."""

    help = __doc__

    def handle(self, *args: object, **options: object) -> None:
        """Run."""
        (settings.ROOT / "docs").mkdir(exist_ok=True)
        (settings.ROOT / "docs" / "openapi.json").write_text(openapi_text(), encoding="utf-8")
        (settings.ROOT / "docs" / "faults-alike.md").write_text(alike_text(), encoding="utf-8")
        (settings.ROOT / "docs" / "shorthand.md").write_text(manual_text(), encoding="utf-8")
        subprocess.run(["npm", "run", "-s", "types"], cwd=settings.ROOT / "web", check=True)
