"""Where a site's pages are is said by its hosts; pages and strangers say how many met them."""

from django.db import migrations, models


def keep_where_it_was_seen(apps, schema_editor):
    """What was seen until now was believed until now."""
    with schema_editor.connection.cursor() as cursor:
        cursor.execute(
            "UPDATE sites_sitehost AS host SET seen_origin = substring(site.seen_url FROM '^https?://[^/?#]+')"
            " FROM sites_site AS site WHERE site.id = host.site_id AND site.seen_host = host.host"
            " AND site.seen_url ~ '^https?://[^/?#]+'"
        )


class Migration(migrations.Migration):

    dependencies = [
        ('sites', '0004_seen_sources'),
    ]

    operations = [
        migrations.AddField(
            model_name='sitehost',
            name='origin',
            field=models.CharField(blank=True, max_length=300),
        ),
        migrations.AddField(
            model_name='sitehost',
            name='seen_origin',
            field=models.CharField(blank=True, max_length=300),
        ),
        migrations.AddField(
            model_name='sitepage',
            name='counts',
            field=models.BooleanField(default=True),
        ),
        migrations.AddField(
            model_name='sitepage',
            name='marks',
            field=models.JSONField(default=list),
        ),
        migrations.AddField(
            model_name='stranger',
            name='marks',
            field=models.JSONField(default=list),
        ),
        migrations.RunPython(keep_where_it_was_seen, migrations.RunPython.noop),
        migrations.RemoveField(
            model_name='site',
            name='seen_url',
        ),
    ]
