"""Every rule, in one list."""

from havrin_core.rules import (
    devices,
    electrical,
    exchanger_odds,
    findings,
    flue,
    gas,
    mistakes,
    plate,
    readings,
    room_air,
    service,
    vent,
    water,
)
from havrin_core.rules.context import Context
from havrin_core.rules.model import FlueView, Reason, Sample

SAMPLES: tuple[Sample, ...] = (
    *room_air.SAMPLES,
    *gas.SAMPLES,
    *flue.SAMPLES,
    *vent.SAMPLES,
    *devices.SAMPLES,
    *electrical.SAMPLES,
    *water.SAMPLES,
)


def every_reason(context: Context, bare: Context, views: list[FlueView]) -> list[Reason]:
    """Return the reasons of every rule. ``bare`` is the unit without what this tape read off its plate."""
    return [
        *findings.finding_reasons(context),
        *devices.device_reasons(context),
        *room_air.room_air_reasons(context),
        *gas.gas_reasons(context),
        *flue.flue_reasons(context, views),
        *vent.vent_reasons(context, views),
        *exchanger_odds.exchanger_reasons(context),
        *readings.reading_reasons(context),
        *readings.lock_out_reasons(context),
        *water.water_reasons(context, views),
        *water.relief_reasons(context),
        *mistakes.mistake_reasons(context),
        *plate.plate_reasons(context, bare),
        *electrical.electrical_reasons(context),
        *service.service_reasons(context),
    ]
