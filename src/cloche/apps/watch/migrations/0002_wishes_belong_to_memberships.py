import django.db.models.deletion
from django.db import migrations, models

FILL = """
UPDATE watch_digestwish AS link SET membership_id = member.id FROM gardens_membership AS member
WHERE member.garden_id = link.garden_id AND member.user_id = link.user_id;
DELETE FROM watch_digestwish WHERE membership_id IS NULL;
SET CONSTRAINTS ALL IMMEDIATE;
"""


class Migration(migrations.Migration):

    dependencies = [
        ('gardens', '0009_what_may_come_in'),
        ('watch', '0001_answers_and_digests'),
    ]

    operations = [
        migrations.AddField(
            model_name='digestwish',
            name='membership',
            field=models.OneToOneField(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='digest_wish', to='gardens.membership'),
        ),
        migrations.RunSQL(FILL, migrations.RunSQL.noop),
        migrations.RemoveConstraint(model_name='digestwish', name='one_digest_a_person_and_garden'),
        migrations.RemoveField(model_name='digestwish', name='garden'),
        migrations.RemoveField(model_name='digestwish', name='user'),
        migrations.AlterField(
            model_name='digestwish',
            name='membership',
            field=models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name='digest_wish', to='gardens.membership'),
        ),
    ]
