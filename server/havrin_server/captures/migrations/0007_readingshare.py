"""How far a log that was sent is read."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("captures", "0006_clock_error")]

    operations = [
        migrations.CreateModel(
            name="ReadingShare",
            fields=[
                ("id", models.UUIDField(primary_key=True, serialize=False)),
                ("share", models.FloatField()),
                ("at", models.DateTimeField()),
            ],
        ),
    ]
