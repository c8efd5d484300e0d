"""Mail comes from addresses that were confirmed; what leads into an account waits in a row, not in a job."""

from django.db import migrations, models


def keep_what_mail_comes_from(apps, schema_editor):
    """Mail has come from these addresses until now."""
    apps.get_model("accounts", "Business").objects.update(mail_confirmed=True)


class Migration(migrations.Migration):

    dependencies = [
        ('accounts', '0007_manager'),
    ]

    operations = [
        migrations.CreateModel(
            name='AccountMail',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('to', models.CharField(max_length=320)),
                ('subject', models.CharField(max_length=300)),
                ('text', models.TextField()),
                ('queued_at', models.DateTimeField()),
            ],
        ),
        migrations.AddField(
            model_name='business',
            name='mail_confirmed',
            field=models.BooleanField(default=False),
        ),
        migrations.RunPython(keep_what_mail_comes_from, migrations.RunPython.noop),
    ]
