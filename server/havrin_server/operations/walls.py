"""Which rows the serving role sees of each table while a firm is told (people/wall.py): a policy for each, set with the roles."""

from psycopg import sql

_OWN = "{column} = (SELECT havrin_firm())"
# The table that a row belongs to is behind a wall itself: whoever sees it sees the row.
_OF = "EXISTS (SELECT FROM {table} AS owner WHERE owner.id = {column})"

FIRM_ID = "firm_id"
OF_A_FIRM = {
    "people_firm": "id",
    "people_person": FIRM_ID,
    "people_invitation": FIRM_ID,
    "people_auditrecord": FIRM_ID,
    "instruments_instrument": FIRM_ID,
    "shop_shopdocument": FIRM_ID,
    "versions_version": FIRM_ID,
    "units_site": FIRM_ID,
    "work_longwork": FIRM_ID,
    "cards_made": FIRM_ID,
    "cards_merge": FIRM_ID,
    "cards_importrun": FIRM_ID,
    "shop_part": FIRM_ID,
    "visits_closedcause": FIRM_ID,
}
OF_A_ROW = {
    "instruments_inhand": ("instruments_instrument", "instrument_id"),
    "captures_devicekey": ("instruments_instrument", "instrument_id"),
    "units_unit": ("units_site", "site_id"),
    "units_contact": ("units_site", "site_id"),
    "cards_unitphoto": ("units_unit", "unit_id"),
    "cards_importrow": ("cards_importrun", "run_id"),
    "visits_visit_helpers": ("visits_visit", "visit_id"),
    "visits_visit": ("units_unit", "unit_id"),
    "visits_tapeentry": ("visits_visit", "visit_id"),
    "visits_amendment": ("visits_visit", "visit_id"),
    "reports_paper": ("visits_visit", "visit_id"),
    "reports_sharelink": ("units_unit", "unit_id"),
    "captures_photo": ("visits_visit", "visit_id"),
    "captures_fluelog": ("visits_visit", "visit_id"),
    "captures_capture": ("visits_visit", "visit_id"),
    "captures_recorder": ("captures_capture", "capture_id"),
    "captures_sampleblock": ("captures_recorder", "recorder_id"),
    "captures_eventmark": ("captures_capture", "capture_id"),
}
_FUNCTION = """
CREATE OR REPLACE FUNCTION havrin_firm() RETURNS bigint LANGUAGE sql STABLE AS
$$ SELECT nullif(current_setting('havrin.firm', true), '')::bigint $$
"""
_POLICY = """
ALTER TABLE {table} ENABLE ROW LEVEL SECURITY;
DROP POLICY IF EXISTS own_firm ON {table};
CREATE POLICY own_firm ON {table} TO havrin_app USING ((SELECT havrin_firm()) IS NULL OR {rows});
DROP POLICY IF EXISTS every_firm ON {table};
CREATE POLICY every_firm ON {table} FOR SELECT TO havrin_read USING (true)
"""


def statements() -> list[sql.Composed]:
    """Return what puts the walls up, or puts them up anew; for the owner, whom none of them holds."""
    own = {table: _OWN.format(column=column) for table, column in OF_A_FIRM.items()}
    of_row = {name: _OF.format(table=table, column=f"{name}.{column}") for name, (table, column) in OF_A_ROW.items()}
    walls = [
        sql.SQL(_POLICY).format(table=sql.Identifier(table), rows=sql.SQL(rows))
        for table, rows in (own | of_row).items()
    ]
    return [sql.SQL(_FUNCTION).format(), *walls]
