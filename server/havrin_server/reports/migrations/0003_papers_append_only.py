"""Kept papers are append-only: what was printed stays as it was printed."""

from django.db import migrations

REFUSE = """
CREATE FUNCTION papers_refuse() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'kept papers are append-only: % refused', TG_OP USING ERRCODE = 'restrict_violation';
END $$;
CREATE TRIGGER paper_append_only BEFORE UPDATE OR DELETE ON reports_paper
    FOR EACH ROW EXECUTE FUNCTION papers_refuse();
CREATE TRIGGER paper_no_truncate BEFORE TRUNCATE ON reports_paper
    FOR EACH STATEMENT EXECUTE FUNCTION papers_refuse();
"""
ALLOW = "DROP TRIGGER paper_append_only ON reports_paper; DROP TRIGGER paper_no_truncate ON reports_paper; DROP FUNCTION papers_refuse();"


class Migration(migrations.Migration):
    dependencies = [("reports", "0002_paper")]
    operations = [migrations.RunSQL(REFUSE, ALLOW)]
