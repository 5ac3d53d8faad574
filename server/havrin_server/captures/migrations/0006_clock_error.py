"""How far an instrument's samples may have been set too late against the server's clock."""

from django.db import migrations, models


class Migration(migrations.Migration):
    """One more column of the recorder."""

    dependencies = [("captures", "0005_photo_marks")]

    operations = [
        migrations.AddField(
            model_name="recorder",
            name="clock_error_s",
            field=models.FloatField(default=0.05),
        ),
    ]
