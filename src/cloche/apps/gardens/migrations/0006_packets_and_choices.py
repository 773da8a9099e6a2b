import django.db.models.deletion
from django.db import migrations, models

NAMES = {"minimum_c": "minimum_c", "ideal_from_c": "optimum_from_c", "ideal_to_c": "optimum_to_c"}


def move_words(apps, schema_editor):
    """What packets said becomes the values of the packet in use."""
    packet = apps.get_model("gardens", "Packet")
    for word in apps.get_model("gardens", "PacketWord").objects.all():
        values = {new: getattr(word, old) for old, new in NAMES.items() if getattr(word, old) is not None}
        packet.objects.create(garden_id=word.garden_id, crop_key=word.crop_key, values=values)


class Migration(migrations.Migration):
    dependencies = [("gardens", "0005_packet_words")]

    operations = [
        migrations.AddField("garden", "school", models.CharField(choices=[("comfortable", "when the soil is comfortably warm"), ("minimum", "as soon as the soil reaches the minimum"), ("calendar", "by the date of the last frost")], default="comfortable", max_length=12)),
        migrations.AddField("garden", "watered", models.BooleanField(default=True)),
        migrations.AddField("garden", "zone", models.CharField(blank=True, max_length=4)),
        migrations.CreateModel(
            name="Packet",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("crop_key", models.CharField(max_length=40)),
                ("variety", models.CharField(blank=True, max_length=60)),
                ("packed_year", models.PositiveSmallIntegerField(blank=True, null=True)),
                ("tested_of", models.PositiveIntegerField(blank=True, help_text="Seeds laid out in a germination test.", null=True)),
                ("tested_up", models.PositiveIntegerField(blank=True, help_text="How many of them germinated.", null=True)),
                ("price", models.FloatField(blank=True, help_text="What it cost, in the grower's own money.", null=True)),
                ("values", models.JSONField(blank=True, default=dict)),
                ("in_use", models.BooleanField(default=True)),
                ("removed_at", models.DateTimeField(editable=False, null=True)),
                ("garden", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="packets", to="gardens.garden")),
            ],
            options={"ordering": ["-in_use", "id"]},
        ),
        migrations.AddConstraint("packet", models.UniqueConstraint(condition=models.Q(("in_use", True), ("removed_at__isnull", True)), fields=("garden", "crop_key"), name="one_packet_in_use")),
        migrations.CreateModel(
            name="CropChoice",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("crop_key", models.CharField(max_length=40)),
                ("school", models.CharField(blank=True, max_length=12)),
                ("way", models.CharField(blank=True, max_length=12)),
                ("garden", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="crop_choices", to="gardens.garden")),
            ],
        ),
        migrations.AddConstraint("cropchoice", models.UniqueConstraint(fields=("garden", "crop_key"), name="one_choice_a_crop")),
        migrations.RunPython(move_words, migrations.RunPython.noop),
        migrations.DeleteModel("PacketWord"),
    ]
