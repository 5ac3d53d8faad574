"""What is said back where a clause is not written as it stands."""

from havrin_core.phrases import Phrase, phrase
from havrin_core.shorthand.model import Ask
from havrin_core.shorthand.words_of_clause import Clause, Read
from havrin_core.vocabulary.catalogue import part


def asked(clause: Clause, question: Phrase, *choices: str, spoken_of: str = "") -> Read:
    """Return the clause as unread, with a question and whole lines to choose from."""
    return Read(unread=clause.words, asks=(Ask(question, choices),), part=spoken_of)


def note_only(clause: Clause, question: Phrase) -> Read:
    """Return the clause as one that can be kept as a note."""
    return asked(clause, question, f"note {clause.said}")


def not_here(clause: Clause, key: str) -> Read:
    """Return the clause as one about a part that the unit has not."""
    return asked(clause, phrase("unit_has_no_what_meant", name=part(key).name.lower()), f"note {clause.said}")
