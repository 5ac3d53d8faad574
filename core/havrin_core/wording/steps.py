"""The next step in words, with the words that begin its line."""

from dataclasses import dataclass

from havrin_core.facts.passed_over import KNOWN, LATER, NOT_POSSIBLE, WHYS, skip_line
from havrin_core.machine.unit import Unit
from havrin_core.quantities.formats import number
from havrin_core.search.model import CURED, NOTHING_WRONG, PART, UNLISTED, Meaning, Offer, Outlook
from havrin_core.search.outlook import PROOF
from havrin_core.standing.model import NextStep
from havrin_core.standing.next_step import key_of
from havrin_core.wording.language import lower_first, text, upper_first
from havrin_core.wording.ledger import make_good, put_back_line
from havrin_core.wording.lifts import lift_lines, lift_words
from havrin_core.wording.missing import because_text, missing_how, missing_starter, missing_text
from havrin_core.wording.names import part_inside
from havrin_core.wording.phrases import words
from havrin_core.wording.reasons import reason_words

_MOST_MEANINGS = 3
_PROBABLY = 0.5  # the share of the suspicion from which a suspect is called probable
GAS_SMELL = (
    "Touch no switch, no thermostat, no phone. Get everybody out.",
    "Shut the gas outside, if that is safe.",
    "Call from outside. This visit stops here.",
)
GET_OUT = (
    "Get everybody out. Touch no switch, no thermostat, no phone.",
    "Shut the gas outside, if that is safe.",
    "Call from outside. This visit stops here.",
)


@dataclass(frozen=True, slots=True)
class Answer:
    """An outcome of the offered test: what it shows, what it would mean, and the line that writes it; "" for a number to type."""

    shows: str
    means: str
    line: str


@dataclass(frozen=True, slots=True)
class Pass:
    """A way to pass the step over, and the line that says so."""

    label: str
    line: str


@dataclass(frozen=True, slots=True)
class StepWords:
    """What to do, why, the words put into the bar, the outcomes that can be answered at a touch, the ways to pass it over."""

    title: str
    why: str
    starter: str
    answers: tuple[Answer, ...] = ()
    passes: tuple[Pass, ...] = ()


def step_words(step: NextStep, unit: Unit, system: str) -> StepWords:
    """Return the next step in words."""
    if step.sought is not None:
        return _search(step)
    if step.missing is not None:
        because = because_text(step.missing)
        needed = text(" Needed because: {work}.", work=lower_first(because)) if because else ""
        what = text("Show {what}", what=missing_text(step.missing))
        return StepWords(
            what,
            missing_how(step.missing) + needed,
            missing_starter(step.missing, unit),
            passes=passes(key_of(step.missing)),
        )
    if step.still is not None:
        what = text("{how}: {device}", how=make_good(step.still.how), device=part_inside(step.still.device))
        return StepWords(
            what,
            text("The visit cannot close before it is made good."),
            put_back_line(step.still.how, step.still.device),
        )
    return _reason(step, unit, system)


def _reason(step: NextStep, unit: Unit, system: str) -> StepWords:
    assert step.reason is not None
    said = reason_words(step.reason, system)
    match step.kind:
        case "get_out":
            return StepWords(
                text(GET_OUT[0]), " ".join([said.text, *(text(words) for words in GET_OUT[1:])]), "shut down "
            )
        case "shut_down":
            return StepWords(text("Shut it down and tag it"), f"{said.text} {said.lifts}", "shut down ")
        case "tell":
            return StepWords(text("Tell the responsible person, in writing"), said.text, "told ")
        case "untag":
            return StepWords(
                text("Put it back into service"),
                text("What was wrong is cured and shown; the tag comes off."),
                "untag ",
            )
        case "worn":
            return StepWords(text("Cure it or tell the owner"), f"{said.text} {said.lifts}", "advise ")
    first = step.reason.lifts[0] if step.reason.lifts else None
    lines = lift_lines(first, unit) if first else []
    return StepWords(lift_words(first) if first else said.lifts, said.text, lines[0].partition("…")[0] if lines else "")


def _search(step: NextStep) -> StepWords:
    sought = step.sought
    assert sought is not None
    if sought.next_test is None:
        return _ended(sought)
    return offer_words(sought.next_test, sought.again)


def headline(found: Outlook) -> str:
    """Return in one line how the search stands."""
    first = found.first
    if not found.observations:
        return text("Nothing tested yet")
    if found.conflicts:
        return text("Does not fit together")
    if first.kind in _NO_MORE_TESTS and first.share >= _PROBABLY:
        return text(_NO_MORE_TESTS[first.kind][0])
    name = words(first.name)
    if found.clear:
        return text("It is the {name}", name=lower_first(name))
    return text("Likely: {name}" if first.share >= _PROBABLY else "{name} comes first", name=name)


def offer_words(offer: Offer, again: str = "") -> StepWords:
    """Return an offered test in words; ``again`` is the key of the test whose repetition decides a conflict."""
    once_more = text("Read it again: it does not fit the rest. ") if offer.test.key == again else ""
    meanings = " ".join(_meaning(offer.test.kind, m) for m in offer.meanings[:_MOST_MEANINGS])
    answers = tuple(map(_answer, offer.meanings))
    return StepWords(words(offer.test.name), once_more + meanings, offer.test.starter, answers, passes(offer.test.key))


_NO_MORE_TESTS = {
    CURED: ("Cured: put back, cycle, read the same again", "{share} % that nothing is left. {proof}", "stops "),
    NOTHING_WRONG: (
        "Nothing is wrong here, as far as was tested",
        "{share} %: look at what calls it (thermostat, the customer's switch), and say that no cause was found.",
        "cause not found",
    ),
    UNLISTED: (
        "Something that no list has",
        "{share} %: every listed part that could do this was tried. Walk the string joint by joint, fuse and plug included.",
        "found ",
    ),
}


def _ended(sought: Outlook) -> StepWords:
    """Return what to do when no test tells more: name the cause, prove the cure, or say that nobody knows."""
    first = sought.first
    share = number(100 * first.share, ".0f")
    if first.kind in _NO_MORE_TESTS:
        title, why, starter = _NO_MORE_TESTS[first.kind]
        return StepWords(text(title), text(why, share=share, proof=words(PROOF[0])), starter)
    name = words(first.name)
    why = text("{name} holds {share} % of the suspicion. {proof}", name=name, share=share, proof=words(PROOF[0]))
    if not sought.clear:
        title = text("Likely, not proved: {name}", name=lower_first(name))
        return StepWords(title, why, f"look {first.part.replace('_', ' ')} ")
    return StepWords(text("Name the cause: {name}", name=lower_first(name)), why, f"cause {name.lower()}")


def passes(key: str) -> tuple[Pass, ...]:
    """Return the ways to pass over the step called ``key``: not possible first."""
    labels = {NOT_POSSIBLE: "Not possible here", KNOWN: "Already known", LATER: "Something else"}
    return tuple(Pass(text(labels[why]), skip_line(key, said)) for said, why in WHYS.items())


def _answer(meaning: Meaning) -> Answer:
    share = number(100 * meaning.first_share, ".0f")
    says = "probably {suspect}, {share} %" if meaning.first_share >= _PROBABLY else "perhaps {suspect}, {share} %"
    means = text(says, suspect=_named(meaning), share=share)
    return Answer(upper_first(words(meaning.outcome)), means, meaning.line)


def _named(meaning: Meaning) -> str:
    name = lower_first(words(meaning.first))
    return text("the {part}", part=name) if meaning.first_kind == PART else name


def _meaning(kind: str, meaning: Meaning) -> str:
    """Return what an outcome of the offered test would mean, in a sentence."""
    sentence = {
        "stops": "If {outcome}: probably {suspect}.",
        "look": "If it is {outcome}: probably {suspect}.",
        "volts": "If it reads {outcome}: probably {suspect}.",
        "watch": "If it {outcome}: probably {suspect}.",
    }.get(kind, "If it shows “{outcome}”: probably {suspect}.")
    return text(sentence, outcome=words(meaning.outcome), suspect=_named(meaning))


def offer_why(offer: Offer) -> str:
    """Return why this test is offered before all others."""
    bits, minutes = number(offer.bits, ".1f"), number(offer.test.minutes, "g")
    return text("{bits} bit for about {minutes} min: more per minute than any other test.", bits=bits, minutes=minutes)


_CODE_NOTES = {
    "reset_first": "It was reset before a code was written: what the control knew may be gone. Say so in the cause.",
    "read_code_first": "Read the code before the power goes off: many controls forget it. Opening the door may cut the power.",
}


def code_note(key: str) -> str:
    """Return what to say about code and reset; "" where nothing is."""
    return text(_CODE_NOTES[key]) if key else ""
