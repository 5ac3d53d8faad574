from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):
    """Circuits become one sort of document beside kinds and models."""

    dependencies = [("shop", "0001_initial"), migrations.swappable_dependency(settings.AUTH_USER_MODEL)]

    operations = [
        migrations.RemoveConstraint("FirmCircuit", "one_circuit_of_a_key_per_firm"),
        migrations.RenameModel("FirmCircuit", "ShopDocument"),
        migrations.AddField(
            "ShopDocument", "sort",
            models.CharField(
                choices=[("circuit", "Circuit"), ("kind", "Kind"), ("model", "Model")], default="circuit", max_length=10
            ),
            preserve_default=False,
        ),
        migrations.AlterField(
            "ShopDocument", "changed_by", models.ForeignKey(null=True, on_delete=models.PROTECT, to=settings.AUTH_USER_MODEL)
        ),
        migrations.AddConstraint(
            "ShopDocument",
            models.UniqueConstraint(fields=("firm", "sort", "key"), name="one_document_of_a_key_per_firm"),
        ),
    ]
