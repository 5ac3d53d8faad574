-- The roles of an installation, where the cluster has none yet. What they may do: roles.sql.
DO $$
BEGIN
    IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = 'havrin_app') THEN CREATE ROLE havrin_app; END IF;
    IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = 'havrin_read') THEN CREATE ROLE havrin_read NOLOGIN; END IF;
EXCEPTION WHEN duplicate_object THEN NULL; -- another database of this cluster was quicker
END $$;
