"""Lines that begin with a verb of the bar: figures, trials, plate values, statements."""

import re

from havrin_core.shorthand import statements
from havrin_core.shorthand.clause import read_clause
from havrin_core.shorthand.counted import is_turn
from havrin_core.shorthand.first_words import spoken_verb
from havrin_core.shorthand.measured import MEASURED_VERBS, read_measured
from havrin_core.shorthand.model import Line, Situation
from havrin_core.shorthand.plate_line import read_plate
from havrin_core.shorthand.trials import TRIALS, read_trial

_NUMBERLIKE = re.compile(r"^[+\-−–]?[.,]?\d")
# verbs of the bar that are words of the trade, too: where the short verb does not read the line, its clauses are tried
_PLAIN_WORDS = frozenset(
    (
        *MEASURED_VERBS,
        "shut",
        "again",
        "lift",
        "part",
        "leak",
        "side",
        "found",
        "saw",
        "tap",
        "plug",
        "pull",
        "hold",
        "restore",
    )
) | {"power", "refit", "code", "drained", "release", "temporary", "told", "alter"}


_OUT_AGAIN = ("out", "plugged", "closed", "removed", "off", "open", "is")
# behind "part" these tell of one that was ordered before
_TELLS_OF_A_PART = frozenset(
    ("is", "are", "was", "came", "comes", "arrives", "arrived", "will", "due", "here", "in", "number", "not")
)


def is_plain_word(word: str) -> bool:
    """Tell whether a verb of the bar is a word of the trade, too."""
    return word.lower().rstrip(",:;") in _PLAIN_WORDS


def read_figures(words: list[str], situation: Situation) -> Line | None:
    """Return a line of counted figures, of a trial or of the plate; None for any other."""
    verb = words[0].lower().rstrip(",:;")
    if verb in MEASURED_VERBS:
        return read_measured(verb, words[1:], situation) if _is_measured(words) else None
    if verb == "plate" and len(words) > 1:
        return read_plate(words[1:], situation)
    if verb in TRIALS and not _is_sentence(words):
        return read_trial(verb, words[1:], situation)
    return None


def read_stated(words: list[str], situation: Situation) -> Line | None:
    """Return a statement: what was said, proved, put in or out; None where the line begins with no such verb."""
    meant = spoken_verb(" ".join(words))
    if meant is not None:
        return statements.read_statement(meant[0], meant[1].split(), situation)
    verb = words[0].lower().rstrip(",:;")
    if statements.is_statement(verb) and not _is_not_that_verb(words, situation):
        return statements.read_statement(verb, words[1:], situation)
    return None


def _is_measured(words: list[str]) -> bool:
    """ "belt worn" speaks of the belt; "belt 9 mm 600 mm" measures it; "turned it down" is no count of turns."""
    if words[0].lower() == "turned":
        return is_turn(words[1:])
    return any(_NUMBERLIKE.match(word) or word.startswith("#") for word in words[1:]) or len(words) == 1


def _is_sentence(words: list[str]) -> bool:
    """ "looks like a crack" is no trial; "look hose ok" is one."""
    return words[0].lower() == "look" and len(words) > 1 and words[1].lower() in ("like", "at", "into")


def _is_not_that_verb(words: list[str], situation: Situation) -> bool:
    verb = words[0].lower()
    if verb == "shut":
        return (
            len(words) > 1
            and words[1].lower().strip(",;:") not in ("down", "it", "unit")
            and bool(read_clause(" ".join(words), situation).bodies)
        )
    if verb in ("tee", "tap") and len(words) > 1 and words[1].lower() in _OUT_AGAIN:
        return True
    if verb in ("leak", "tap", "plug", "pull", "hold", "restore", "part", "power", "refit"):
        # a whole sentence of the vocabulary goes before the short verb: "leak at union", "power off and on"
        behind = words[1].lower() if len(words) > 1 else ""
        return (verb == "leak" and behind in ("at", "on", "in")) or (verb == "part" and behind in _TELLS_OF_A_PART)
    return False
