-- What the three roles of an installation (new_roles.sql) may do. Run by the owner of the database after every change of its tables.
--   havrin_app   what the server connects as: reads and writes, adds evidence and never changes it, alters no table
--   havrin_read  for reports of one's own: reads, but no password, session, key or link
-- The owner (who migrates) is whoever runs this. Neither of the others may become it.
REVOKE ALL ON SCHEMA public FROM PUBLIC;
GRANT USAGE ON SCHEMA public TO havrin_app, havrin_read;
REVOKE ALL ON ALL TABLES IN SCHEMA public FROM havrin_app, havrin_read;
GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO havrin_app;
GRANT USAGE, SELECT ON ALL SEQUENCES IN SCHEMA public TO havrin_app;

-- Evidence is added to.
REVOKE UPDATE, DELETE ON visits_tapeentry, visits_amendment, versions_version, reports_paper, people_auditrecord
    FROM havrin_app;
REVOKE DELETE ON visits_visit FROM havrin_app;
-- What the tables are is the owner's.
REVOKE INSERT, UPDATE, DELETE ON django_migrations, django_content_type, auth_permission FROM havrin_app;

GRANT SELECT ON ALL TABLES IN SCHEMA public TO havrin_read;
REVOKE SELECT ON people_opensession, people_invitation, captures_devicekey, reports_sharelink, people_person FROM havrin_read;
GRANT SELECT (id, username, first_name, last_name, role, firm_id, is_active, unit_system) ON people_person TO havrin_read;
