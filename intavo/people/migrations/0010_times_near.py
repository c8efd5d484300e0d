"""No event has a time that a timeline could break on."""

import datetime
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('accounts', '0007_manager'),
        ('people', '0009_pages_by_their_paths'),
    ]

    operations = [
        migrations.RunSQL(
            "UPDATE people_timelineevent SET at = now() WHERE at NOT BETWEEN '1970-01-01' AND '2200-01-01'",
            migrations.RunSQL.noop,
        ),
        migrations.AddConstraint(
            model_name='timelineevent',
            constraint=models.CheckConstraint(condition=models.Q(('at__isnull', True), models.Q(('at__gte', datetime.datetime(1970, 1, 1, 0, 0, tzinfo=datetime.timezone.utc)), ('at__lte', datetime.datetime(2200, 1, 1, 0, 0, tzinfo=datetime.timezone.utc))), _connector='OR'), name='event_time_near'),
        ),
    ]
