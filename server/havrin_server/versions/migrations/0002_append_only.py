"""Versions are append-only: the database itself refuses to change or remove one."""

from django.db import migrations

REFUSE = """
CREATE FUNCTION versions_refuse() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'versions are append-only: % refused', TG_OP USING ERRCODE = 'restrict_violation';
END $$;
CREATE TRIGGER versions_append_only BEFORE UPDATE OR DELETE ON versions_version
    FOR EACH ROW EXECUTE FUNCTION versions_refuse();
CREATE TRIGGER versions_no_truncate BEFORE TRUNCATE ON versions_version
    FOR EACH STATEMENT EXECUTE FUNCTION versions_refuse();
"""
ALLOW = "DROP TRIGGER versions_append_only ON versions_version; DROP TRIGGER versions_no_truncate ON versions_version; DROP FUNCTION versions_refuse();"


class Migration(migrations.Migration):
    dependencies = [("versions", "0001_initial")]
    operations = [migrations.RunSQL(REFUSE, ALLOW)]
