import django.db.models.deletion
from django.db import migrations, models
from django.utils import timezone


def refer_to_models(apps, schema_editor):
    """Every unit so far described itself: what it said becomes a model of its own, and the unit refers to it."""
    unit_type, document_type = apps.get_model("units", "Unit"), apps.get_model("shop", "ShopDocument")
    for unit in unit_type.objects.select_related("site"):
        key = f"unit_{unit.pk}"
        document = {
            "format": "havrin-model", "version": 1, "key": key, "maker": unit.maker or "Maker not entered",
            "name": unit.model_name or unit.label, "kind": unit.kind, "plate": unit.plate,
        }
        unit.model = document_type.objects.create(
            firm_id=unit.site.firm_id, sort="model", key=key, document=document, changed_at=timezone.now()
        )
        unit.plate = {}
        unit.save()


class Migration(migrations.Migration):
    """Units refer to models; gas line, age and surroundings are known."""

    dependencies = [("units", "0001_initial"), ("shop", "0002_documents")]

    operations = [
        migrations.RenameField("Unit", "model", "model_name"),
        migrations.AddField(
            "Unit", "model",
            models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, to="shop.shopdocument"),
        ),
        migrations.RunPython(refer_to_models, migrations.RunPython.noop),
        migrations.RunSQL("SET CONSTRAINTS ALL IMMEDIATE", migrations.RunSQL.noop),
        migrations.AlterField(
            "Unit", "model", models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, to="shop.shopdocument")
        ),
        migrations.AlterField("Unit", "plate", models.JSONField(blank=True, default=dict)),
        migrations.RemoveField("Unit", "kind"),
        migrations.RemoveField("Unit", "maker"),
        migrations.RemoveField("Unit", "model_name"),
        migrations.AddField("Unit", "gas_line", models.CharField(blank=True, default="", max_length=60), preserve_default=False),
        migrations.AddField("Unit", "installed_year", models.PositiveSmallIntegerField(null=True)),
        migrations.AddField("Unit", "surroundings", models.JSONField(blank=True, default=list)),
    ]
