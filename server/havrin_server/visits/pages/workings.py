"""The workings of the core in the person's units."""

from collections.abc import Sequence

from havrin_core.facts.facts import Facts, ReadingFact
from havrin_core.limits.limits import band_for
from havrin_core.machine.unit import STAGE_LABELS, Unit
from havrin_core.quantities.display import half_width_text
from havrin_core.quantities.units import shown_unit
from havrin_core.shorthand.starters import more_lines
from havrin_core.tape.visit import VisitTape
from havrin_core.wording.phrases import words
from havrin_core.wording.workings import rung_limit, rung_name, rung_starter, what_to_mind
from havrin_core.workings.draft import spillage_rule
from havrin_core.workings.every import workings_of
from havrin_core.workings.ladder import Rung, SwitchScale, ladder_of, switch_of
from havrin_core.workings.model import Working
from havrin_server.figures.explained import explained, shown_as, shown_if
from havrin_server.figures.schemas import Explained, Shown
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import accuracies_of, tape_of, unit_of
from havrin_server.visits.schemas.workings import DialOut, LadderRung, StageFigures, SwitchOut, VentOut, WorkingsOut


def workings_page(visit: Visit, system: str) -> WorkingsOut:
    """Return the figures of gas, draft, air and water of ``visit``."""
    tape, rules = tape_of(visit), visit.rules()
    unit, facts = unit_of(visit, tape), Facts(tape)
    found = workings_of(unit, rules, VisitTape(visit.reason, tape, accuracies_of(visit)), system)
    switches = [switch_of(unit, rules, facts, stage) for stage in unit.stage_keys]
    return WorkingsOut(
        gas=_stages(found.gas, system),
        draft=_stages(found.draft, system),
        air=_stages(found.air, system),
        water=_stages(found.water, system),
        dials=[DialOut.of(dial, seconds=dict(dial.seconds)) for dial in found.dials],
        ladder=[_rung(rung, system) for rung in ladder_of(unit, rules, facts)],
        switches=[_switch(row, system) for row in switches if row],
        vent=_vent(unit, visit, facts, found.draft, system),
        mind=what_to_mind(),
        more={view: list(lines) for view, lines in more_lines(unit).items()},
    )


def _stages(rows: Sequence[Working], system: str) -> list[StageFigures]:
    keys = list(dict.fromkeys(row.stage or "" for row in rows))
    return [
        StageFigures(
            stage=key,
            label=STAGE_LABELS.get(key, ""),
            figures=[_figure(row, system) for row in rows if (row.stage or "") == key],
        )
        for key in keys
    ]


def _figure(row: Working, system: str) -> Explained:
    unit = shown_unit(row.dimension, system)
    return explained(
        row.why,
        shown_as(row.value, row.dimension, system),
        key=f"{row.key} {row.stage or ''}",
        name=words(row.name),
        system=system,
        half_width=half_width_text(row.half_width, unit),
        state=row.state,
        aside=words(row.says),
    )


def _rung(rung: Rung, system: str) -> LadderRung:
    return LadderRung.of(
        rung,
        name=rung_name(rung),
        shown=shown_if(rung.at_pa, "pressure", system),
        limit=rung_limit(rung, system),
        starter=rung_starter(rung),
    )


def _switch(row: SwitchScale, system: str) -> SwitchOut:
    return SwitchOut.of(
        row,
        label=STAGE_LABELS[row.stage],
        point=shown_as(row.point_pa, "draft", system),
        read=shown_if(row.read_pa, "draft", system),
        found=shown_if(row.found_pa, "draft", system),
        starter=f"{row.stage} draft " if STAGE_LABELS[row.stage] else "draft ",
    )


def _shown(fact: ReadingFact | None, dimension: str, system: str) -> Shown | None:
    if fact is None:
        return None
    return shown_as(fact.value, dimension, system)


def _vent(unit: Unit, visit: Visit, facts: Facts, draft: Sequence[Working], system: str) -> VentOut:
    theoretical = next((row.value for row in draft if row.key == "theoretical_draft_pa"), None)
    spill = facts.newest("spillage_s", None)
    band = band_for(unit, visit.rules(), "spillage_s", None)
    return VentOut(
        height=_shown(facts.newest("vent_height_m", None), "length", system),
        outdoor=_shown(facts.newest("outdoor_temp_k", None), "temperature", system),
        flue=_shown(facts.newest("flue_temp_k", unit.stage_keys[-1]), "temperature", system),
        draft=_shown(facts.newest("vent_draft_pa", None), "draft", system),
        theoretical=shown_if(theoretical, "draft", system),
        spillage=_shown(spill, "time", system),
        spillage_state=band.verdict(spill.value) if band and spill else "none",
        spillage_rule=words(spillage_rule(band)),
        natural=unit.kind.draft_hood,
    )
