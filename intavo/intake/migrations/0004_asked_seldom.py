"""An address is asked to confirm seldom."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('accounts', '0008_sender_and_mails'),
        ('intake', '0003_calls'),
        ('touchpoints', '0003_rehearsals'),
    ]

    operations = [
        migrations.AddField(
            model_name='pending',
            name='address_key',
            field=models.CharField(blank=True, default='', max_length=320),
        ),
        migrations.AddField(
            model_name='pending',
            name='mailed_at',
            field=models.DateTimeField(null=True),
        ),
        migrations.AddField(
            model_name='pending',
            name='touchpoint',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, to='touchpoints.touchpoint'),
        ),
        migrations.AlterField(
            model_name='pending',
            name='token_hash',
            field=models.CharField(db_index=True, max_length=64),
        ),
        migrations.AddIndex(
            model_name='pending',
            index=models.Index(condition=models.Q(('confirmed_at', None)), fields=['business', 'address_key'], name='pending_of'),
        ),
    ]
