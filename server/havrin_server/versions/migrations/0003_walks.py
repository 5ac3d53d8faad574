"""Walks are kept version by version."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("versions", "0002_append_only")]

    operations = [
        migrations.AlterField(
            model_name="version",
            name="sort",
            field=models.CharField(
                choices=[
                    ("unit", "Unit"),
                    ("model", "Model"),
                    ("kind", "Kind"),
                    ("circuit", "Circuit"),
                    ("rules", "Rules"),
                    ("instrument", "Instrument"),
                    ("walk", "Walk"),
                ],
                max_length=10,
            ),
        ),
    ]
