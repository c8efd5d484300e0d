"""The table that sign-in tries are counted in, shared by all server processes."""

from django.core.management import call_command
from django.db import migrations


def make(apps, schema_editor):
    call_command("createcachetable", verbosity=0)


class Migration(migrations.Migration):
    dependencies = [("accounts", "0001_initial")]
    operations = [migrations.RunPython(make, migrations.RunPython.noop)]
