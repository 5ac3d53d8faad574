"""Amendments go on where the sealed tape ends: each gets its number and its link, those that stand already too."""

from django.db import migrations, models

from havrin_core.tape.chain import BEGIN, link
from havrin_server.visits.chain import amendment_record_of


def chain_up(apps, schema_editor):
    """Link what was written before, in the order in which it was said."""
    Amendment, Visit = apps.get_model("visits", "Amendment"), apps.get_model("visits", "Visit")
    for visit in Visit.objects.filter(amendments__isnull=False).distinct():
        before = visit.head or BEGIN
        rows = list(Amendment.objects.filter(visit=visit).order_by("at", "id"))
        for number, row in enumerate(rows, 1):
            row.number = number
            row.link = before = link(before, amendment_record_of(row))
        Amendment.objects.bulk_update(rows, ["number", "link"])


class Migration(migrations.Migration):
    dependencies = [("visits", "0010_chain")]
    operations = [
        migrations.AddField("amendment", "number", models.PositiveIntegerField(default=0), preserve_default=False),
        migrations.AddField("amendment", "link", models.CharField(max_length=64, default=""), preserve_default=False),
        migrations.AddField("amendment", "seal", models.JSONField(null=True)),
        migrations.RunSQL("ALTER TABLE visits_amendment DISABLE TRIGGER amendment_append_only", migrations.RunSQL.noop),
        migrations.RunPython(chain_up, migrations.RunPython.noop),
        migrations.RunSQL("SET CONSTRAINTS ALL IMMEDIATE", migrations.RunSQL.noop),
        migrations.RunSQL("ALTER TABLE visits_amendment ENABLE TRIGGER amendment_append_only", migrations.RunSQL.noop),
        migrations.AddConstraint(
            "amendment", models.UniqueConstraint(fields=["visit", "number"], name="one_chain_of_amendments")
        ),
    ]
