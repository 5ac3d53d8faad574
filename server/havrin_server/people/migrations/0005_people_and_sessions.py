"""People and sessions: invitations, one-time codes, sessions that say whose they are, and the audit log, which only grows."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

ONLY_GROWS = """
CREATE FUNCTION audit_refuses() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'the audit log is only added to: % refused', TG_OP USING ERRCODE = 'restrict_violation';
END $$;
CREATE TRIGGER audit_append_only BEFORE UPDATE OR DELETE ON people_auditrecord
    FOR EACH ROW EXECUTE FUNCTION audit_refuses();
CREATE TRIGGER audit_no_truncate BEFORE TRUNCATE ON people_auditrecord
    FOR EACH STATEMENT EXECUTE FUNCTION audit_refuses();
"""
MAY_SHRINK = """
DROP TRIGGER audit_append_only ON people_auditrecord; DROP TRIGGER audit_no_truncate ON people_auditrecord;
DROP FUNCTION audit_refuses();
"""


class Migration(migrations.Migration):

    dependencies = [
        ('people', '0004_sample_world'),
    ]

    operations = [
        migrations.AddField(
            model_name='firm',
            name='codes_required',
            field=models.BooleanField(default=False),
        ),
        migrations.AddField(
            model_name='person',
            name='code_secret',
            field=models.CharField(blank=True, default='', max_length=64),
        ),
        migrations.AddField(
            model_name='person',
            name='code_step',
            field=models.BigIntegerField(default=0),
        ),
        migrations.AlterField(
            model_name='person',
            name='role',
            field=models.CharField(choices=[('technician', 'Technician'), ('supervisor', 'Supervisor'), ('office', 'Office'), ('administrator', 'Administrator')], default='technician', max_length=13),
        ),
        migrations.CreateModel(
            name='Invitation',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('username', models.CharField(max_length=30)),
                ('first_name', models.CharField(max_length=150)),
                ('last_name', models.CharField(blank=True, max_length=150)),
                ('role', models.CharField(choices=[('technician', 'Technician'), ('supervisor', 'Supervisor'), ('office', 'Office'), ('administrator', 'Administrator')], max_length=13)),
                ('token_hash', models.CharField(max_length=64, unique=True)),
                ('made_at', models.DateTimeField()),
                ('expires_at', models.DateTimeField()),
                ('used_at', models.DateTimeField(null=True)),
                ('revoked_at', models.DateTimeField(null=True)),
                ('firm', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, to='people.firm')),
                ('made_by', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='invited', to=settings.AUTH_USER_MODEL)),
                ('person', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='resets', to=settings.AUTH_USER_MODEL)),
            ],
        ),
        migrations.CreateModel(
            name='OpenSession',
            fields=[
                ('session_key', models.CharField(max_length=40, primary_key=True, serialize=False, verbose_name='session key')),
                ('session_data', models.TextField(verbose_name='session data')),
                ('expire_date', models.DateTimeField(db_index=True, verbose_name='expire date')),
                ('began_at', models.DateTimeField(null=True)),
                ('used_at', models.DateTimeField(null=True)),
                ('address', models.CharField(blank=True, max_length=45)),
                ('device', models.CharField(blank=True, max_length=200)),
                ('person', models.ForeignKey(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='open_sessions', to=settings.AUTH_USER_MODEL)),
            ],
            options={
                'verbose_name': 'session',
                'verbose_name_plural': 'sessions',
                'abstract': False,
            },
        ),
        migrations.CreateModel(
            name='AuditRecord',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('name', models.CharField(blank=True, max_length=150)),
                ('at', models.DateTimeField()),
                ('action', models.CharField(max_length=24)),
                ('about', models.CharField(blank=True, max_length=300)),
                ('address', models.CharField(blank=True, max_length=45)),
                ('firm', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, to='people.firm')),
                ('person', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
            ],
            options={
                'indexes': [models.Index(fields=['firm', '-id'], name='people_audi_firm_id_b13df1_idx')],
            },
        ),
        migrations.RunSQL(ONLY_GROWS, MAY_SHRINK),
        # Django's own table of sessions: whoever was signed in signs in once more.
        migrations.RunSQL("DROP TABLE IF EXISTS django_session", migrations.RunSQL.noop),
    ]
