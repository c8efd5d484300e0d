"""Reports that were not kept, counted apart."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('accounts', '0007_manager'),
        ('results', '0003_channels'),
        ('sites', '0005_origins'),
    ]

    operations = [
        migrations.CreateModel(
            name='RefusedBeats',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('day', models.DateField()),
                ('why', models.CharField(choices=[('unreadable', 'unreadable'), ('touchpoint', 'touchpoint'), ('revision', 'revision'), ('page', 'page'), ('often', 'often')], max_length=12)),
                ('count', models.PositiveBigIntegerField()),
                ('business', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, to='accounts.business')),
                ('site', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, to='sites.site')),
            ],
            options={
                'constraints': [models.UniqueConstraint(fields=('site', 'day', 'why'), name='refused_once_a_day')],
            },
        ),
    ]
