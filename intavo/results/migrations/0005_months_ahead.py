"""Reports are found by when they came without reading the month, and the first months have their partitions."""

from django.db import migrations

# By the server's clock, in UTC. A month that has begun without a partition of its own goes on so.
_FIRST_MONTHS = """
DO $$
DECLARE begins timestamptz := date_trunc('month', now() AT TIME ZONE 'UTC') AT TIME ZONE 'UTC';
        ends timestamptz;
BEGIN
    FOR _ IN 0..2 LOOP
        ends := ((begins AT TIME ZONE 'UTC') + interval '1 month') AT TIME ZONE 'UTC';
        IF to_regclass('results_beat_' || to_char(begins AT TIME ZONE 'UTC', 'YYYY_MM')) IS NULL AND NOT EXISTS
            (SELECT FROM results_beat_rest WHERE received_at >= begins AND received_at < ends)
        THEN
            EXECUTE format('CREATE TABLE %I PARTITION OF results_beat FOR VALUES FROM (%L) TO (%L)',
                'results_beat_' || to_char(begins AT TIME ZONE 'UTC', 'YYYY_MM'), begins, ends);
        END IF;
        begins := ends;
    END LOOP;
END $$
"""


class Migration(migrations.Migration):

    dependencies = [
        ("results", "0004_refused"),
    ]

    operations = [
        migrations.RunSQL(
            "CREATE INDEX results_beat_by_time ON results_beat USING brin (received_at)",
            "DROP INDEX results_beat_by_time",
        ),
        migrations.RunSQL(_FIRST_MONTHS, migrations.RunSQL.noop),
    ]
