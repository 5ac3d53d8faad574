"""The vocabulary: every word that begins something, and the nearest meanings of one that does not."""

import difflib
from collections.abc import Mapping
from functools import lru_cache

from havrin_core.vocabulary.index import condition_index, part_index, phrase_index
from havrin_core.vocabulary.measurands import MEASURANDS, Measurand

STAGE_WORDS = {"hi": "high", "high": "high", "hf": "high", "lo": "low", "low": "low", "lf": "low"}
PHASE_WORDS = {"found": "found", "asfound": "found", "left": "left", "asleft": "left", "trial": "trial"}
VERBS = {
    "did": "something done: did clean rod",
    "found": "something seen: found soot",
    "saw": "something seen: saw rust flakes",
    "jump": "jumper in: jump call",
    "unjump": "jumper out: unjump call",
    "hold": "a switch or damper held or taped: hold door switch",
    "release": "released again: release door switch",
    "lift": "a lead lifted: lift rod lead",
    "land": "the lead back on: land rod lead",
    "tee": "a tee in a hose: tee pressure switch",
    "untee": "the tee out again: untee pressure switch",
    "tap": "a gas tap opened: tap manifold",
    "plug": "the tap plugged: plug manifold",
    "pull": "a part taken out: pull igniter",
    "refit": "the part back in: refit igniter",
    "alter": "a setting changed for a test: alter blower speed to high",
    "restore": "the setting back: restore blower speed to high",
    "temporary": "a temporary repair: temporary hose clamped until 12 December",
    "lasting": "the lasting repair in its place: lasting new hose",
    "part": "a part to order: part inducer",
    "approve": "who must say yes to which part: approve owner inducer, igniter",
    "approved": "who said yes: approved owner inducer",
    "declined": "who said no: declined tenant filter",
    "arrives": "when a part is here: arrives inducer 30 November",
    "building": "how long it keeps its heat: building light, medium or heavy",
    "vulnerable": "who is there that cold would harm: vulnerable two seedling rooms, an old man upstairs",
    "tempheat": "heat for the time being: tempheat two electric heaters, 3 kW",
    "drained": "what was drained: drained the wing to the north",
    "again": "the next visit: again Friday, fit the inducer",
    "plate": "a value off the data plate: plate ua 0.8, plate rise 35 65",
    "clock": "the meter clocked: clock 2 ft3 1 30.2 (dial, turns, seconds)",
    "tight": "a closed line: tight 12 l 20 mbar 19.8 mbar 5 min",
    "va": "a transformer under load: va 24.6 1.35 of 40",
    "belt": "a belt, deflection and span: belt 9 mm 600 mm",
    "ventrun": "a vent with its elbows: ventrun 30 ft 4x90 2x45 of 60 ft",
    "orifice": "orifices as fitted: orifice 4 #43, orifice 4 2.26 mm",
    "cap": "a capacitor, read and rated: cap 37.2 of 40; under load: cap 5.2 A 370 V of 40",
    "mains": "line voltage under load: mains 112 of 120",
    "phases": "three phases, volts or amps: phases 208 212 206",
    "code": "fault code: code 2 4",
    "leak": "leak check: leak ok, leak bad",
    "cycles": "full cycles watched: cycles 5",
    "proved": "safety device acts: proved limit",
    "fails": "safety device does not act: fails limit",
    "cause": "cause named: cause blocked port",
    "advise": "advice given: advise new igniter before winter",
    "refused": "advice refused, in their words",
    "cannot": "cannot be put right now: cannot …",
    "shut": "shut down: shut down gas shut, tagged, owner told",
    "told": "who was told: told manager",
    "untag": "the tag off, back in service: untag exchanger changed, relit",
    "stricter": "a stricter standing: stricter 3 …",
    "override": "a milder standing, supervisors only: override 2 …",
    "putback": "everything put back: putback",
    "stops": "where the sequence stops: stops igniter, stops nothing, stops steady",
    "look": "a part looked at: look hose ok, look vent bad",
    "ohms": "a part's ohms, power off: ohms igniter 58, ohms limit open",
    "swap": "a known good part tried: swap inducer ok",
    "try": "called at the control for a moment: try thermostat bad",
    "watch": "a contact recorded while it runs: watch limit bad, watch limit ok",
    "leaves": "how it is left: leaves running, leaves made safe, leaves waiting for …, leaves not touched",
    "phoned": "a telephone call: phoned tenant, runs well since",
    "complaint": "what the customer says: complaint no heat since Friday",
    "disable": "made unable to fire on purpose: disable",
    "power": "power off and on: power off and on",
    "side": "seen on another system, for the owner: side compressor contactor pitted",
    "note": "words only: note …; note for owner: … goes into the report",
}


@lru_cache(maxsize=1)
def measurand_words() -> dict[str, Measurand]:
    """Return each word or phrase that names a quantity."""
    return {word: m for m in MEASURANDS for word in m.words}


def longest_phrase(words: list[str], phrases: dict[str, str]) -> tuple[str, int] | None:
    """Return (what it names, words used) for the longest phrase that ``words`` begin with; a comma after it is none of it."""
    for count in range(min(4, len(words)), 0, -1):
        name = phrases.get(" ".join(words[:count]).lower().rstrip(",;:"))
        if name:
            return name, count
    return None


def nearest(piece: str, among: Mapping[str, str] | None = None) -> tuple[str, ...]:
    """Return up to three meanings near ``piece``, as "word – meaning"."""
    meanings = among or _all_meanings()
    close = difflib.get_close_matches(piece.lower(), meanings, n=3, cutoff=0.5)
    return tuple(f"{word} – {meanings[word]}" if meanings[word] != word else word for word in close)


def nearest_parts(text: str, verb: str) -> tuple[str, ...]:
    """Return up to three lines of ``verb`` with a part whose name is near a word of ``text``."""
    words = part_index().words()
    close = [near for word in text.lower().split() for near in difflib.get_close_matches(word, words, n=1, cutoff=0.7)]
    return tuple(f"{verb} {near}" for near in dict.fromkeys(close))[:3]


@lru_cache(maxsize=1)
def _all_meanings() -> dict[str, str]:
    meanings = {word: m.name for word, m in measurand_words().items()}
    meanings |= {word: word for index in (part_index(), condition_index(), phrase_index()) for word in index.words()}
    return meanings | VERBS
