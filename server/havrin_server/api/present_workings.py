"""The workings of the core in the person's units."""

from collections.abc import Sequence

from havrin_core.facts.facts import Facts, ReadingFact
from havrin_core.limits.limits import band_for
from havrin_core.limits.model import Band
from havrin_core.machine.unit import STAGE_LABELS, Unit
from havrin_core.quantities.display import show
from havrin_core.quantities.units import shown_unit
from havrin_core.tape.visit import VisitTape
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.names import source
from havrin_core.wording.phrases import words
from havrin_core.workings.draft import spillage_rule
from havrin_core.workings.every import Dial, workings_of
from havrin_core.workings.model import Working
from havrin_server.api.present_why import explained, shown_as
from havrin_server.api.schemas import Explained, Shown
from havrin_server.api.schemas_workings import DialOut, LadderRung, StageFigures, SwitchOut, VentOut, WorkingsOut
from havrin_server.journal.models import Visit
from havrin_server.journal.queries import accuracies_of, tape_of, unit_of

_SCALE_STAMPS = 2.0  # the scale of a switch ends at so many times its stamp


def workings_page(visit: Visit, system: str) -> WorkingsOut:
    """Return the figures of gas, draft, air and water of ``visit``."""
    tape = tape_of(visit)
    unit = unit_of(visit, tape)
    found = workings_of(unit, visit.rules(), VisitTape(visit.reason, tape, accuracies_of(visit)), system)
    facts = Facts(tape)
    return WorkingsOut(
        gas=_stages(found.gas, system),
        draft=_stages(found.draft, system),
        air=_stages(found.air, system),
        water=_stages(found.water, system),
        dials=[_dial(d) for d in found.dials],
        ladder=_ladder(visit, unit, facts, system),
        switches=[s for key in unit.stage_keys if (s := _switch(visit, unit, facts, key, system))],
        vent=_vent(unit, visit, facts, found.draft, system),
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
    width = f"{row.half_width / unit.scale:.{unit.decimals}f}" if row.half_width else ""
    return explained(
        row.why,
        shown_as(row.value, row.dimension, system),
        key=f"{row.key} {row.stage or ''}",
        name=words(row.name),
        system=system,
        half_width=width,
        state=row.state,
        aside=words(row.says),
    )


def _dial(dial: Dial) -> DialOut:
    return DialOut(volume=dial.volume, unit=dial.unit, seconds=dict(dial.seconds))


def _shown(fact: ReadingFact | None, dimension: str, system: str) -> Shown | None:
    if fact is None:
        return None
    return _as(abs(fact.value) if dimension == "pressure" else fact.value, dimension, system)


def _as(value: float, dimension: str, system: str) -> Shown:
    shown = show(value, dimension, system)
    return Shown(text=shown.text, unit=shown.unit)


def _ladder(visit: Visit, unit: Unit, facts: Facts, system: str) -> list[LadderRung]:
    """Return the pressures from the supply down to the burner on one scale."""
    rows = [("supply_standing_pa", None, "No flow"), ("supply_running_pa", None, "All running")]
    rows += [("manifold_pa", key, f"Manifold {STAGE_LABELS[key]}".strip()) for key in reversed(unit.stage_keys)]
    running = facts.newest("supply_running_pa", None)
    bands = [band_for(unit, visit.rules(), q, stage, running.value if running else None) for q, stage, _ in rows]
    reads = [facts.newest(q, stage) for q, stage, _ in rows]
    tops = [b.high for b in bands if b and b.high] + [r.value for r in reads if r]
    top = 1.12 * max(tops, default=1000.0)
    return [
        _rung(
            facts, unit.station_at(measurand(quantity).station, stage), quantity, stage, name, band, read, top, system
        )
        for (quantity, stage, name), band, read in zip(rows, bands, reads, strict=True)
    ]


def _rung(
    facts: Facts,
    station: str,
    quantity: str,
    stage: str | None,
    name: str,
    band: Band | None,
    read: ReadingFact | None,
    top: float,
    system: str,
) -> LadderRung:
    found = facts.as_found(quantity, stage)
    low, high = (band.low, band.high) if band else (None, None)
    bounds = [show(b, "pressure", system).text for b in (low, high) if b is not None]
    words = (
        " to ".join(bounds)
        if len(bounds) == 2
        else f"{'at least' if low is not None else 'at most'} {bounds[0]}"
        if bounds
        else ""
    )
    what = measurand(quantity)
    return LadderRung(
        station=station,
        name=name,
        shown=_shown(read, "pressure", system),
        limit=f"{words}, {source(band.source)}" if band and words else "",
        state=band.verdict(read.value) if band and read else "none",
        value=read.value / top if read else None,
        found=found.value / top if found and read and found.entry_id != read.entry_id else None,
        low=low / top if low is not None else None,
        high=high / top if high is not None else None,
        starter=f"{stage} {what.words[0]} " if stage in ("low", "high") else f"{what.words[0]} ",
    )


def _switch(visit: Visit, unit: Unit, facts: Facts, stage: str, system: str) -> SwitchOut | None:
    point = unit.stage(stage).switch_makes_pa
    if point is None:
        return None
    read, found = facts.newest("draft_pa", stage), facts.as_found("draft_pa", stage)
    band = band_for(unit, visit.rules(), "draft_pa", stage)
    share = abs(read.value) / (_SCALE_STAMPS * point) if read else None
    return SwitchOut(
        stage=stage,
        label=STAGE_LABELS[stage],
        point=_as(point, "pressure", system),
        read=_shown(read, "pressure", system),
        found=_shown(found, "pressure", system) if found and read and found.entry_id != read.entry_id else None,
        wanted_share=(1 + visit.rules().draft_margin_share) / _SCALE_STAMPS,
        read_share=min(share, 1.0) if share is not None else None,
        state=band.verdict(abs(read.value)) if band and read else "none",
        starter=f"{stage} draft " if STAGE_LABELS[stage] else "draft ",
    )


def _vent(unit: Unit, visit: Visit, facts: Facts, draft: Sequence[Working], system: str) -> VentOut:
    theoretical = next((row for row in draft if row.key == "theoretical_draft_pa"), None)
    spill = facts.newest("spillage_s", None)
    band = band_for(unit, visit.rules(), "spillage_s", None)
    return VentOut(
        height=_shown(facts.newest("vent_height_m", None), "length", system),
        outdoor=_shown(facts.newest("outdoor_temp_k", None), "temperature", system),
        flue=_shown(facts.newest("flue_temp_k", unit.stage_keys[-1]), "temperature", system),
        draft=_shown(facts.newest("vent_draft_pa", None), "pressure", system),
        theoretical=_as(theoretical.value, "pressure", system) if theoretical else None,
        spillage=_shown(spill, "time", system),
        spillage_state=band.verdict(spill.value) if band and spill else "none",
        spillage_rule=words(spillage_rule(band)),
        natural=unit.kind.draft_hood,
    )
