"""The tape as a chain: every entry gets its number and its link, those that stand already too; closed visits are settled."""

from django.db import migrations, models

from havrin_core.tape.chain import BEGIN, link
from havrin_server.visits.chain import record_of

SETTLED = """
CREATE FUNCTION visit_refuses() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'a closed visit stays as it is: % refused', TG_OP USING ERRCODE = 'restrict_violation';
END $$;
CREATE TRIGGER visit_settled BEFORE UPDATE ON visits_visit
    FOR EACH ROW WHEN (OLD.closed_at IS NOT NULL AND OLD.left_open IS NOT NULL) EXECUTE FUNCTION visit_refuses();
CREATE TRIGGER visit_kept BEFORE DELETE ON visits_visit
    FOR EACH ROW WHEN (OLD.version > 0) EXECUTE FUNCTION visit_refuses();
CREATE TRIGGER visit_no_truncate BEFORE TRUNCATE ON visits_visit
    FOR EACH STATEMENT EXECUTE FUNCTION visit_refuses();
"""
UNSETTLED = """
DROP TRIGGER visit_settled ON visits_visit; DROP TRIGGER visit_kept ON visits_visit;
DROP TRIGGER visit_no_truncate ON visits_visit; DROP FUNCTION visit_refuses();
"""


def chain_up(apps, schema_editor):
    """Link what was written before there was a chain, in the order in which it was received."""
    Entry, Visit = apps.get_model("visits", "TapeEntry"), apps.get_model("visits", "Visit")
    for visit in Visit.objects.filter(version__gt=0).iterator():
        before = BEGIN
        rows = list(Entry.objects.filter(visit=visit).order_by("recorded_at", "at", "id"))
        for number, row in enumerate(rows, 1):
            row.number = number
            row.link = before = link(before, record_of(row))
        Entry.objects.bulk_update(rows, ["number", "link"], batch_size=500)
        visit.head, visit.version = (before if rows else ""), len(rows)
        visit.save(update_fields=["head", "version"])


class Migration(migrations.Migration):
    dependencies = [("visits", "0009_out_of_calibration")]
    operations = [
        migrations.AddField("visit", "head", models.CharField(blank=True, max_length=64, default=""), preserve_default=False),
        migrations.AddField("visit", "seal", models.JSONField(null=True)),
        migrations.AddField("tapeentry", "number", models.PositiveIntegerField(default=0), preserve_default=False),
        migrations.AddField("tapeentry", "link", models.CharField(max_length=64, default=""), preserve_default=False),
        migrations.RunSQL("ALTER TABLE visits_tapeentry DISABLE TRIGGER tape_append_only", migrations.RunSQL.noop),
        migrations.RunPython(chain_up, migrations.RunPython.noop),
        # what waits to be checked until the end of the transaction would hold up the change of the table
        migrations.RunSQL("SET CONSTRAINTS ALL IMMEDIATE", migrations.RunSQL.noop),
        migrations.RunSQL("ALTER TABLE visits_tapeentry ENABLE TRIGGER tape_append_only", migrations.RunSQL.noop),
        migrations.AddConstraint(
            "tapeentry", models.UniqueConstraint(fields=["visit", "number"], name="one_chain_per_visit")
        ),
        migrations.RunSQL(SETTLED, UNSETTLED),
    ]
