"""A follow-up is found by the path of its page, which no search takes apart any more."""

import django.db.models.functions.text
import intavo.people.models
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('followup', '0012_done_once'),
        ('people', '0009_pages_by_their_paths'),
    ]

    operations = [
        migrations.AddField(
            model_name='followup',
            name='path',
            field=models.GeneratedField(db_persist=True, expression=django.db.models.functions.text.Lower(intavo.people.models.PagePath('page')), output_field=models.TextField()),
        ),
    ]
