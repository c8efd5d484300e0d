"""Why a mail was given up."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('mail', '0004_enclosures'),
    ]

    operations = [
        migrations.AddField(
            model_name='outgoingmail',
            name='wrong',
            field=models.CharField(blank=True, db_default='', default='', max_length=300),
        ),
    ]
