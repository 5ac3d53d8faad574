"""The sample world grown to a firm of twelve after ten years: its own sites, units and closed visits, many times over.

For the bench alone. Copies are made in the database, row by row of those that the sample world wrote through the services;
each copied tape is linked anew, so that its chain holds, and is not sealed: nobody closed it.
"""

import json
from datetime import date
from types import SimpleNamespace

from django.db import connection, transaction
from django.utils import timezone

from havrin_core.tape.chain import BEGIN, link
from havrin_server.visits.chain import record_of

SITES, UNITS, VISITS_A_UNIT, ENTRIES_A_VISIT, TECHNICIANS = 1_300, 4_000, 10, 40, 12
STOPS_A_DAY, DAYS = 6, 10
_BATCH = 20_000
_STREETS = ("Alder", "Birch", "Cinder", "Dyer", "Elm", "Forge", "Granary", "Hollow", "Ivy", "Juniper", "Kiln", "Loom")

_SITES = """
INSERT INTO units_site (firm_id, name, address, altitude_m, access, hours, hazards, zone)
SELECT firm.id, format('%%s House %%s', street.name, n), format('%%s %%s Lane, Tarnhollow', n, street.name),
       1400 + n %% 300, 'Side door.', '', '', ''
FROM generate_series(1, %(sites)s) AS n,
     LATERAL (SELECT (%(streets)s::text[])[1 + n %% array_length(%(streets)s::text[], 1)] AS name) AS street,
     (SELECT id FROM people_firm LIMIT 1) AS firm
"""
_UNITS = """
WITH kept AS (
    SELECT unit.*, row_number() OVER (ORDER BY unit.id) AS turn, count(*) OVER () AS many FROM units_unit AS unit
), place AS (
    SELECT id, row_number() OVER (ORDER BY id) AS turn, count(*) OVER () AS many FROM units_site WHERE name LIKE '%% House %%'
)
INSERT INTO units_unit (site_id, label, place, model_id, serial, plate, gas_line, installed_year, surroundings, vulnerable,
                        left_title, left_level, left_day, maintained_day)
SELECT place.id, format('%%s-%%s', split_part(kept.label, '-', 1), n), kept.place, kept.model_id, format('SN-%%s', n),
       kept.plate, '', 2000 + n %% 26, kept.surroundings, CASE WHEN n %% 97 = 0 THEN 'one aged 84' ELSE '' END,
       kept.left_title, kept.left_level, kept.left_day, %(today)s::date - n %% 420
FROM generate_series(1, %(units)s) AS n
JOIN kept ON kept.turn = 1 + n %% kept.many
JOIN place ON place.turn = 1 + n %% place.many
"""
_CLOSED = """
WITH kept AS (
    SELECT visit.*, unit.model_id, row_number() OVER (PARTITION BY unit.model_id ORDER BY visit.id) AS rank,
           count(*) OVER (PARTITION BY unit.model_id) AS many
    FROM visits_visit AS visit JOIN units_unit AS unit ON unit.id = visit.unit_id WHERE visit.closed_at IS NOT NULL
), grown AS (SELECT * FROM units_unit WHERE serial LIKE 'SN-%%')
INSERT INTO visits_visit (unit_id, reason, day, turn, complaint, there, since, task, parts, technician_id, house_rules,
                          version, head, seal, closed_at, closed_by_id, closed_level, "left", opened_with, left_open, pinned,
                          frozen, past, customer_words, signed_by, signature, cancelled_why, plan_version)
SELECT grown.id, kept.reason, %(today)s::date - (365 * back - grown.id %% 300)::int, 1, kept.complaint, '', '', '', '[]',
       kept.technician_id, kept.house_rules, 0, '', NULL,
       kept.closed_at - make_interval(days => 365 * back), kept.closed_by_id, kept.closed_level, kept."left",
       kept.opened_with, NULL, kept.pinned, kept.frozen, kept.past, kept.customer_words, kept.signed_by,
       kept.signature, '', kept.id
FROM grown CROSS JOIN generate_series(1, %(years)s) AS back
JOIN kept ON kept.model_id = grown.model_id AND kept.rank = 1 + (grown.id + back) %% kept.many
"""
_COPIES = """
CREATE TEMPORARY TABLE copied ON COMMIT DROP AS
WITH numbered AS (
    SELECT entry.*, count(*) OVER (PARTITION BY entry.visit_id) AS many
    FROM visits_tapeentry AS entry JOIN visits_visit AS visit ON visit.id = entry.visit_id
    WHERE visit.closed_at IS NOT NULL AND visit.plan_version = 0
)
SELECT gen_random_uuid() AS id, visit.id AS visit_id, numbered.number + again * numbered.many AS number,
       visit.unit_id AS unit_id, gen_random_uuid() AS "group", numbered.schema, numbered.kind, numbered.phase,
       numbered.stage, numbered.quantity, numbered.value_si, numbered.at - make_interval(days => 30) AS at,
       numbered.zone, numbered.recorded_at, numbered.sent_at, numbered.device, numbered.author_id,
       numbered.instrument_id, numbered.out_of_calibration, numbered.data
FROM visits_visit AS visit
JOIN numbered ON numbered.visit_id = visit.plan_version
CROSS JOIN generate_series(0, 20) AS again
WHERE visit.plan_version > 0 AND visit.closed_at IS NOT NULL
  AND numbered.number + again * numbered.many <= %(entries)s
"""
_COPIED = "SELECT * FROM copied ORDER BY visit_id, number"
_LINKED = "CREATE TEMPORARY TABLE linked (id uuid PRIMARY KEY, link text) ON COMMIT DROP"
_KEPT = """
INSERT INTO visits_tapeentry (id, visit_id, number, unit_id, "group", schema, kind, phase, stage, quantity, value_si, at,
                              zone, recorded_at, sent_at, device, author_id, instrument_id, out_of_calibration, data, link)
SELECT copied.*, linked.link FROM copied JOIN linked ON linked.id = copied.id
"""
_ENDS = """
WITH last AS (SELECT DISTINCT ON (visit_id) visit_id, number, id FROM copied ORDER BY visit_id, number DESC)
UPDATE visits_visit AS visit SET version = last.number, head = linked.link, left_open = kept.left_open
FROM last JOIN linked ON linked.id = last.id, visits_visit AS kept
WHERE visit.id = last.visit_id AND kept.id = visit.plan_version
"""
_PEOPLE = """
INSERT INTO people_person (password, is_superuser, username, first_name, last_name, email, is_staff, is_active, date_joined,
                           firm_id, role, unit_system, code_secret, code_step, phone, licence, van)
SELECT tove.password, false, format('grown%%s', n), format('Fenn %%s', n), 'Orrell', '', false, true, now(),
       tove.firm_id, 'technician', 'us', '', 0, '', '', format('van %%s', n + 2)
FROM generate_series(1, %(people)s) AS n, (SELECT * FROM people_person WHERE username = 'tove') AS tove
"""
_PLANNED = """
WITH who AS (SELECT id, row_number() OVER (ORDER BY id) AS turn FROM people_person WHERE username LIKE 'grown%%'),
     unit AS (SELECT id, row_number() OVER (ORDER BY md5(id::text)) AS turn FROM units_unit WHERE serial LIKE 'SN-%%'),
     firm AS (SELECT house_rules FROM people_firm LIMIT 1)
INSERT INTO visits_visit (unit_id, reason, day, turn, complaint, there, since, task, parts, technician_id, house_rules,
                          version, head, "left", customer_words, signed_by, signature, cancelled_why, plan_version)
SELECT unit.id, 'maintenance', %(today)s::date + day, stop, 'Yearly maintenance.', '', '', '', '[]', who.id,
       firm.house_rules, 0, '', '', '', '', '[]', '', 0
FROM who CROSS JOIN generate_series(0, %(days)s - 1) AS day CROSS JOIN generate_series(1, %(stops)s) AS stop
JOIN unit ON unit.turn = who.turn * 100 + day * 7 + stop
CROSS JOIN firm
"""


def _link() -> None:
    """Work out the link of every copied entry, as the services do for those that they store."""
    with connection.chunked_cursor() as copied, connection.cursor() as cursor:
        copied.execute(_COPIED)
        names = [column.name for column in copied.description]
        before, visit = BEGIN, None
        while rows := copied.fetchmany(_BATCH):
            linked = []
            for values in rows:
                row = SimpleNamespace(**dict(zip(names, values, strict=True)))
                row.data = json.loads(row.data)
                before = link(before if row.visit_id == visit else BEGIN, record_of(row))
                visit = row.visit_id
                linked.append((row.id, before))
            with cursor.cursor.copy("COPY linked (id, link) FROM STDIN") as target:
                for one in linked:
                    target.write_row(one)


def grow(times: float = 1.0) -> dict[str, int]:
    """Grow the sample world that stands in the database, as its owner; return how much of each there is then.

    ``times``: so many times the sites, units and technicians of a firm of twelve.
    """
    today: date = timezone.now().date()
    given = {
        "sites": round(times * SITES),
        "units": round(times * UNITS),
        "years": VISITS_A_UNIT,
        "entries": ENTRIES_A_VISIT,
        "people": round(times * TECHNICIANS),
        "stops": STOPS_A_DAY,
        "days": DAYS,
        "today": today,
        "streets": list(_STREETS),
    }
    with transaction.atomic(), connection.cursor() as cursor:
        for statement in (_SITES, _UNITS, _CLOSED, _COPIES, _LINKED):
            cursor.execute(statement, given)
        _link()
        for statement in (_KEPT, _ENDS, _PEOPLE, _PLANNED):
            cursor.execute(statement, given)
    with connection.cursor() as cursor:
        cursor.execute("VACUUM ANALYZE")  # or it would be done while something is measured
        counts = {}
        for table in ("units_site", "units_unit", "visits_visit", "visits_tapeentry"):
            cursor.execute(f"SELECT count(*) FROM {table}")
            counts[table] = cursor.fetchone()[0]
    return counts
