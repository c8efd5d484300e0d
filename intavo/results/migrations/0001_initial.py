"""Beats: partitioned by the month in which they came, with a default partition for what fits no other."""

from django.db import migrations, models

FORWARD = """
CREATE TABLE results_beat (
    id uuid NOT NULL,
    business_id bigint NOT NULL REFERENCES accounts_business (id) ON DELETE CASCADE,
    site_id bigint NOT NULL REFERENCES sites_site (id) ON DELETE CASCADE,
    client_id varchar(80) NOT NULL,
    touchpoint varchar(20) NOT NULL,
    revision integer NOT NULL CHECK (revision > 0),
    variant varchar(40),
    what varchar(10) NOT NULL CHECK (what IN ('seen', 'opened', 'started', 'closed', 'clicked', 'goal')),
    page varchar(500) NOT NULL,
    device varchar(10) NOT NULL,
    at timestamptz NOT NULL,
    received_at timestamptz NOT NULL,
    PRIMARY KEY (id, received_at)
) PARTITION BY RANGE (received_at);
CREATE TABLE results_beat_rest PARTITION OF results_beat DEFAULT;
CREATE INDEX results_beat_by_touchpoint ON results_beat (business_id, touchpoint, received_at);
"""


class Migration(migrations.Migration):
    initial = True
    dependencies = [("accounts", "0001_initial"), ("sites", "0001_initial")]
    operations = [
        migrations.RunSQL(FORWARD, "DROP TABLE results_beat"),
        migrations.CreateModel(
            name="Beat",
            fields=[
                ("id", models.UUIDField(primary_key=True, serialize=False)),
                ("business_id", models.BigIntegerField()),
                ("site_id", models.BigIntegerField()),
                ("client_id", models.CharField(max_length=80)),
                ("touchpoint", models.CharField(max_length=20)),
                ("revision", models.PositiveIntegerField()),
                ("variant", models.CharField(max_length=40, null=True)),
                ("what", models.CharField(max_length=10)),
                ("page", models.CharField(max_length=500)),
                ("device", models.CharField(max_length=10)),
                ("at", models.DateTimeField()),
                ("received_at", models.DateTimeField()),
            ],
            options={"db_table": "results_beat", "managed": False},
        ),
    ]
