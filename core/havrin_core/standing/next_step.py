"""The next step: the lift of the worst reason, or the cheapest thing still to show."""

from havrin_core.facts.facts import Jumper
from havrin_core.rules.model import NOT_YET, SHUT_DOWN, Missing, Reason
from havrin_core.standing.model import NextStep
from havrin_core.vocabulary.abnormal import abnormal, device_name

_STARTERS = {
    "room_co": "room ", "vent_seen": "vent ok", "trap_seen": "trap ok", "exchanger_seen": "exchanger ok ",
    "supply_running": "supply ", "supply_standing": "lockup ", "manifold_each_stage": "mp ", "input_each_stage": "input ",
    "draft_each_stage": "draft ", "flame_each_stage": "ua ", "rise_each_stage": "rise ", "flue_each_stage": "o2 ",
    "tightness": "tight ", "spillage_tested": "spill ", "leak_check": "leak ok", "cause_named": "cause ", "full_cycle": "cycles 1", "cycles_after_reset": "cycles ",
    "device_proved": "proved ", "low_water_proved": "proved low water", "water_pressure": "wp ", "relief_seen": "relief ok",
    "water_rise_each_stage": "wrise ", "discharge_co_each_stage": "dco ",
}  # fmt: skip


def next_step(reasons: list[Reason], missing: list[Missing], jumpers: list[Jumper], to_tell: bool) -> NextStep | None:
    """Return what to do next, or None when nothing is left to do."""
    tag = next((reason for reason in reasons if reason.code == "shut_down"), None)
    dangers = [reason for reason in reasons if reason.level == SHUT_DOWN and reason is not tag]
    if to_tell and tag is not None:
        return NextStep("Tell the responsible person, in writing", tag.text, 2, "", "told ")
    if dangers:
        return _danger_step(dangers[0], tagged=tag is not None)
    wrong = [r for r in reasons if r.level == NOT_YET and not r.code.endswith("_in") and r.code != "call_unproved"]
    if wrong:
        return NextStep(_first_words(wrong[0].lifts), wrong[0].text, 5, wrong[0].station, "")
    if missing:
        return _proof_step(min(missing, key=_urgency))
    if jumpers:
        first = jumpers[0]
        kind = abnormal(first.how)
        title, line = f"{kind.lifts}: {device_name(first.device)}", f"{kind.verb_out} {device_name(first.device)}"
        return NextStep(title, "The visit cannot close before it is made good.", 1, first.device, line)
    if tag is not None:
        return NextStep(
            "Put it back into service", "What was wrong is cured and shown; the tag comes off.", 1, "", "untag "
        )
    worn = [r for r in reasons if r.level < NOT_YET and r.lifts and r.code not in ("advise", "refused")]
    return _tell_step(worn[0]) if worn else None


def _danger_step(reason: Reason, *, tagged: bool) -> NextStep:
    if tagged:
        return NextStep(_first_words(reason.lifts), reason.text, 5, reason.station, "")
    return NextStep("Shut it down and tag it", f"{reason.text} {reason.lifts}", 5, reason.station, "shut down ")


def _tell_step(reason: Reason) -> NextStep:
    return NextStep("Cure it or tell the owner", f"{reason.text} {reason.lifts}", 5, reason.station, "advise ")


def _urgency(item: Missing) -> tuple[bool, bool, bool, int]:
    # Room CO before anything; a full cycle last, for it proves the rest; quick looks before long ones.
    return (
        item.proof != "room_co",
        item.proof in ("full_cycle", "cycles_after_reset"),
        not item.after_work,
        item.minutes,
    )


def _proof_step(item: Missing) -> NextStep:
    why = f"{item.how}" + (f" Needed because: {item.after_work.lower()}." if item.after_work else "")
    return NextStep(f"Show {item.text}", why, item.minutes, item.station, starter_for(item))


def starter_for(item: Missing) -> str:
    """Return the words that begin the line which shows ``item``."""
    stage = next((word for word in ("low", "high") if item.text.endswith(f"{word} fire")), "")
    starter = item.starter or _STARTERS[item.proof]
    return f"{stage} {starter}" if stage else starter


def _first_words(lifts: str) -> str:
    return lifts.split(";")[0].split(". ")[0].rstrip(".")
