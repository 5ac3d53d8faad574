"""Generated tests draw the same cases every time, so that a red check can be repeated; HAVRIN_EXPLORE=1 draws new ones.

No case has a deadline: a busy machine is slow, not wrong.
"""

import os

from hypothesis import HealthCheck, settings

settings.register_profile(
    "steady",
    derandomize="HAVRIN_EXPLORE" not in os.environ,
    deadline=None,
    suppress_health_check=[HealthCheck.too_slow],
)
settings.load_profile("steady")
