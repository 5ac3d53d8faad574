"""The tape is append-only: the database itself refuses to change or remove an entry."""

from django.db import migrations

REFUSE = """
CREATE FUNCTION tape_refuses() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'the tape is append-only: % refused', TG_OP USING ERRCODE = 'restrict_violation';
END $$;
CREATE TRIGGER tape_append_only BEFORE UPDATE OR DELETE ON visits_tapeentry
    FOR EACH ROW EXECUTE FUNCTION tape_refuses();
CREATE TRIGGER tape_no_truncate BEFORE TRUNCATE ON visits_tapeentry
    FOR EACH STATEMENT EXECUTE FUNCTION tape_refuses();
"""
ALLOW = "DROP TRIGGER tape_append_only ON visits_tapeentry; DROP TRIGGER tape_no_truncate ON visits_tapeentry; DROP FUNCTION tape_refuses();"


class Migration(migrations.Migration):
    dependencies = [("visits", "0002_initial")]
    operations = [migrations.RunSQL(REFUSE, ALLOW)]
