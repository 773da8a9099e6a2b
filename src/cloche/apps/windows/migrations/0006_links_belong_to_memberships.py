import django.db.models.deletion
from django.db import migrations, models

FILL = """
UPDATE windows_calendarlink AS link SET membership_id = member.id FROM gardens_membership AS member
WHERE member.garden_id = link.garden_id AND member.user_id = link.user_id;
DELETE FROM windows_calendarlink WHERE membership_id IS NULL;
SET CONSTRAINTS ALL IMMEDIATE;
"""


class Migration(migrations.Migration):

    dependencies = [
        ('gardens', '0009_what_may_come_in'),
        ('windows', '0005_watch_and_basis'),
    ]

    operations = [
        migrations.AddField(
            model_name='calendarlink',
            name='membership',
            field=models.OneToOneField(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='calendar_link', to='gardens.membership'),
        ),
        migrations.RunSQL(FILL, migrations.RunSQL.noop),
        migrations.RemoveConstraint(model_name='calendarlink', name='one_address_a_person_and_garden'),
        migrations.RemoveField(model_name='calendarlink', name='garden'),
        migrations.RemoveField(model_name='calendarlink', name='user'),
        migrations.AlterField(
            model_name='calendarlink',
            name='membership',
            field=models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name='calendar_link', to='gardens.membership'),
        ),
    ]
