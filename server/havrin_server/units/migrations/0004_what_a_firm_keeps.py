"""Contacts, addresses and what else a firm keeps of its sites and units; how a unit was left, beside it."""

import django.db.models.deletion
from django.db import migrations, models


def contacts_of_their_own(apps, schema_editor):
    """Whom one speaks with at a site was a word on it: it becomes somebody who can be rung."""
    Contact, Site = apps.get_model("units", "Contact"), apps.get_model("units", "Site")
    rows = Site.objects.exclude(contact="").values_list("pk", "contact")
    Contact.objects.bulk_create(Contact(site_id=pk, name=said, role="other") for pk, said in rows)


class Migration(migrations.Migration):

    dependencies = [
        ('units', '0003_zones'),
    ]

    operations = [
        migrations.AddField(
            model_name='site',
            name='address',
            field=models.CharField(blank=True, default='', max_length=200),
        ),
        migrations.AddField(
            model_name='site',
            name='hazards',
            field=models.TextField(blank=True, default=''),
        ),
        migrations.AddField(
            model_name='site',
            name='hours',
            field=models.CharField(blank=True, default='', max_length=120),
        ),
        migrations.AddField(
            model_name='site',
            name='latitude',
            field=models.FloatField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='site',
            name='longitude',
            field=models.FloatField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='site',
            name='merged_into',
            field=models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, to='units.site'),
        ),
        migrations.AddField(
            model_name='site',
            name='retired_at',
            field=models.DateTimeField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='unit',
            name='left_day',
            field=models.DateField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='unit',
            name='left_level',
            field=models.PositiveSmallIntegerField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='unit',
            name='left_title',
            field=models.CharField(blank=True, default='', max_length=200),
        ),
        migrations.AddField(
            model_name='unit',
            name='maintained_day',
            field=models.DateField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='unit',
            name='merged_into',
            field=models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, to='units.unit'),
        ),
        migrations.AddField(
            model_name='unit',
            name='retired_at',
            field=models.DateTimeField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='unit',
            name='vulnerable',
            field=models.CharField(blank=True, default='', max_length=120),
        ),
        migrations.CreateModel(
            name='Contact',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('name', models.CharField(max_length=120)),
                ('role', models.CharField(default='owner', max_length=20)),
                ('phone', models.CharField(blank=True, default='', max_length=40)),
                ('mail', models.CharField(blank=True, default='', max_length=120)),
                ('language', models.CharField(blank=True, default='', max_length=40)),
                ('decides', models.CharField(blank=True, default='', max_length=200)),
                ('retired_at', models.DateTimeField(blank=True, null=True)),
                ('site', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, to='units.site')),
            ],
        ),
        migrations.RunPython(contacts_of_their_own, migrations.RunPython.noop),
        # what waits to be checked until the end of the transaction would hold up the change of the table
        migrations.RunSQL("SET CONSTRAINTS ALL IMMEDIATE", migrations.RunSQL.noop),
        migrations.RemoveField(
            model_name='site',
            name='contact',
        ),
    ]
