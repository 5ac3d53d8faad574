"""A firm's own walks."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("shop", "0002_documents")]

    operations = [
        migrations.AlterField(
            model_name="shopdocument",
            name="sort",
            field=models.CharField(
                choices=[("circuit", "Circuit"), ("kind", "Kind"), ("model", "Model"), ("walk", "Walk")], max_length=10
            ),
        ),
    ]
