"""How an exchanger is looked at, and how much of what is there each way finds."""

from collections.abc import Mapping

# method -> share of real breaches that it finds where it was used. Havrin's judgement, for guidance.
FINDS: Mapping[str, float] = {"eye": 0.45, "mirror": 0.60, "borescope": 0.85, "pressure test": 0.95}
USUAL = "mirror"  # where nobody wrote how it was looked at
CLOSE = ("borescope", "pressure test")  # clears what looked like a crack
SURENESS = ("sure", "likely", "unsure")
METHOD_WORDS: Mapping[str, str] = {
    "eye": "eye",
    "naked eye": "eye",
    "mirror": "mirror",
    "borescope": "borescope",
    "scope": "borescope",
    "camera": "borescope",
    "pressure": "pressure test",
    "pressure test": "pressure test",
    "tracer": "pressure test",
    "dye": "pressure test",
}
