"""Mail that nobody has just asked for says where it ends."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('accounts', '0008_sender_and_mails'),
    ]

    operations = [
        migrations.AddField(
            model_name='accountmail',
            name='unsubscribe',
            field=models.CharField(blank=True, db_default='', default='', max_length=300),
        ),
    ]
