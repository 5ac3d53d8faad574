"""What a unit is judged by and does not share with its model."""

from typing import Any

from havrin_server.units.models import Unit


def own_plate(unit: Unit) -> dict[str, Any]:
    """Return what is kept version by version of a unit: all that it is judged by and does not share with its model."""
    return {
        "model": unit.model.key,
        "serial": unit.serial,
        "plate": unit.plate,
        "altitude_m": unit.site.altitude_m,
        "installed_year": unit.installed_year,
        "surroundings": list(unit.surroundings),
    }
