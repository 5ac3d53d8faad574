"""Amendments are append-only, as the tape is."""

from django.db import migrations

REFUSE = """
CREATE TRIGGER amendment_append_only BEFORE UPDATE OR DELETE ON visits_amendment
    FOR EACH ROW EXECUTE FUNCTION tape_refuses();
CREATE TRIGGER amendment_no_truncate BEFORE TRUNCATE ON visits_amendment
    FOR EACH STATEMENT EXECUTE FUNCTION tape_refuses();
"""
ALLOW = (
    "DROP TRIGGER amendment_append_only ON visits_amendment; DROP TRIGGER amendment_no_truncate ON visits_amendment;"
)


class Migration(migrations.Migration):
    dependencies = [("visits", "0005_amendment")]
    operations = [migrations.RunSQL(REFUSE, ALLOW)]
