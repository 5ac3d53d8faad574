"""What was read beside a value and moves its limits."""

from havrin_core.facts.facts import Facts
from havrin_core.limits.model import Beside


def beside_of(facts: Facts) -> Beside:
    """Return the newest readings of this visit that limits of others depend on."""
    rows = (facts.newest(q, None) for q in ("supply_running_pa", "outdoor_temp_k", "system_height_m"))
    return Beside(*(row.value if row else None for row in rows))
