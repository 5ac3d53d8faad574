"""Generated tests draw the same cases every time, so that a red check can be repeated; HAVRIN_EXPLORE=1 draws new ones."""

import os

from hypothesis import settings

settings.register_profile("steady", derandomize="HAVRIN_EXPLORE" not in os.environ)
settings.load_profile("steady")
