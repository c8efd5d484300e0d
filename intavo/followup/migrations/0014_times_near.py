"""No work has a time that a list could break on; what has one until now loses it."""

import datetime
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('accounts', '0007_manager'),
        ('followup', '0013_its_path'),
        ('people', '0009_pages_by_their_paths'),
        ('sites', '0005_origins'),
        ('touchpoints', '0003_rehearsals'),
    ]

    operations = [
        migrations.RunSQL(
            "UPDATE followup_followup SET due = CASE WHEN due BETWEEN '1970-01-01' AND '2200-01-01' THEN due END,"
            " back_at = CASE WHEN back_at BETWEEN '1970-01-01' AND '2200-01-01' THEN back_at END"
            " WHERE due NOT BETWEEN '1970-01-01' AND '2200-01-01'"
            " OR back_at NOT BETWEEN '1970-01-01' AND '2200-01-01'",
            migrations.RunSQL.noop,
        ),
        migrations.AddConstraint(
            model_name='followup',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('due__isnull', True), models.Q(('due__gte', datetime.datetime(1970, 1, 1, 0, 0, tzinfo=datetime.timezone.utc)), ('due__lte', datetime.datetime(2200, 1, 1, 0, 0, tzinfo=datetime.timezone.utc))), _connector='OR'), models.Q(('back_at__isnull', True), models.Q(('back_at__gte', datetime.datetime(1970, 1, 1, 0, 0, tzinfo=datetime.timezone.utc)), ('back_at__lte', datetime.datetime(2200, 1, 1, 0, 0, tzinfo=datetime.timezone.utc))), _connector='OR'), models.Q(('opened_at__isnull', True), models.Q(('opened_at__gte', datetime.datetime(1970, 1, 1, 0, 0, tzinfo=datetime.timezone.utc)), ('opened_at__lte', datetime.datetime(2200, 1, 1, 0, 0, tzinfo=datetime.timezone.utc))), _connector='OR'), models.Q(('finished_at__isnull', True), models.Q(('finished_at__gte', datetime.datetime(1970, 1, 1, 0, 0, tzinfo=datetime.timezone.utc)), ('finished_at__lte', datetime.datetime(2200, 1, 1, 0, 0, tzinfo=datetime.timezone.utc))), _connector='OR')), name='followup_times_near'),
        ),
    ]
