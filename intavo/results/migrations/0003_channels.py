"""Which channel a click went to."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ("results", "0002_rehearsals"),
    ]

    operations = [
        migrations.RunSQL(
            "ALTER TABLE results_beat ADD COLUMN channel varchar(20) NOT NULL DEFAULT ''",
            "ALTER TABLE results_beat DROP COLUMN channel",
        ),
        migrations.RemoveConstraint(model_name="hourlytally", name="tally_once_an_hour"),
        migrations.AddField(
            model_name="hourlytally", name="channel", field=models.CharField(blank=True, max_length=20, default=""),
            preserve_default=False,
        ),
        migrations.AddConstraint(
            model_name="hourlytally",
            constraint=models.UniqueConstraint(
                fields=("touchpoint", "site_id", "hour", "what", "channel"), name="tally_once_an_hour"
            ),
        ),
    ]
