from django.db import migrations, models

# What is known of those that are there: who wrote by mail, and whose thread is a talk.
_KNOWN = """
UPDATE followup_followup SET via = 'mail' WHERE touchpoint_id IS NULL AND their_mail <> '';
UPDATE followup_followup f SET via = COALESCE(g.name, 'page')
FROM talks_talk t LEFT JOIN talks_gateway g ON g.id = t.gateway_id WHERE f.thread = 'talk-' || t.id;
"""


class Migration(migrations.Migration):
    dependencies = [("followup", "0007_kept_answers"), ("talks", "__first__")]
    operations = [
        migrations.AddField(
            model_name="followup",
            name="via",
            field=models.CharField(db_default="form", default="form", max_length=60),
        ),
        migrations.RunSQL(_KNOWN, migrations.RunSQL.noop),
    ]
