"""What was read beside a value and moves its limits."""

from havrin_core.facts.facts import Facts
from havrin_core.limits.model import Beside


def beside_of(facts: Facts) -> Beside:
    """Return the newest readings of this visit that limits of others depend on."""
    running, outdoor = facts.newest("supply_running_pa", None), facts.newest("outdoor_temp_k", None)
    return Beside(running.value if running else None, outdoor.value if outdoor else None)
