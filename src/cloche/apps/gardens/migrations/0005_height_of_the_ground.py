"""A garden that was never told its height lay at 100 m; from now on its climate follows its height, so that it gets that of the
ground about it."""

from django.apps.registry import Apps
from django.db import migrations
from django.db.backends.base.schema import BaseDatabaseSchemaEditor

from cloche.bridge.services.site import height_at

UNTOLD_M = 100.0


def lie_as_high_as_the_ground(apps: Apps, _editor: BaseDatabaseSchemaEditor) -> None:
    """Of every garden whose height was nobody's word."""
    for garden in apps.get_model("gardens", "Garden").objects.filter(elevation_m=UNTOLD_M).iterator():
        garden.elevation_m = round(height_at(garden.latitude_deg, garden.longitude_deg))
        garden.save(update_fields=["elevation_m"])


class Migration(migrations.Migration):
    dependencies = [("gardens", "0004_helper_adds_entries")]
    operations = [migrations.RunPython(lie_as_high_as_the_ground, migrations.RunPython.noop)]
