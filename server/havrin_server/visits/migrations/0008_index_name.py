"""The index of a tape by time has a name of its own."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("visits", "0007_schema_3")]
    operations = [
        migrations.RenameIndex("tapeentry", new_name="tape_of_visit", old_name="journal_tap_visit_i_c66511_idx")
    ]
