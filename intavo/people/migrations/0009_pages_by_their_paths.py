"""A page that somebody was on is found by its path, and whoever has a tag by one index."""

import django.db.models.deletion
import django.db.models.fields.json
import intavo.people.models
from django.db import migrations, models


FORWARD = r"""
CREATE FUNCTION intavo_path(page text) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE RETURN CASE WHEN page <> '' THEN
    left('/' || rtrim(regexp_replace(regexp_replace(regexp_replace(page, '[?#].*$', ''),
        '^[a-zA-Z][a-zA-Z0-9+.-]*://[^/]*', ''), '^/', ''), '/'), 600) END;
"""


class Migration(migrations.Migration):

    dependencies = [
        ('accounts', '0007_manager'),
        ('people', '0008_events_of_a_kind'),
    ]

    operations = [
        migrations.RunSQL(FORWARD, "DROP FUNCTION intavo_path(text)"),
        migrations.RemoveIndex(
            model_name='persontag',
            name='people_pers_busines_f1a4fd_idx',
        ),
        migrations.RemoveIndex(
            model_name='timelineevent',
            name='event_of_a_kind',
        ),
        migrations.AddField(
            model_name='timelineevent',
            name='path',
            field=models.GeneratedField(db_persist=True, expression=intavo.people.models.PagePath(django.db.models.fields.json.KeyTextTransform('page', 'data')), output_field=models.TextField()),
        ),
        migrations.AlterField(
            model_name='timelineevent',
            name='business',
            field=models.ForeignKey(db_index=False, on_delete=django.db.models.deletion.CASCADE, to='accounts.business'),
        ),
        migrations.AddIndex(
            model_name='persontag',
            index=models.Index(fields=['business', 'tag', 'person'], name='people_of_a_tag'),
        ),
        migrations.AddIndex(
            model_name='timelineevent',
            index=models.Index(fields=['business', 'kind', 'path', 'person'], name='event_of_a_kind'),
        ),
    ]
