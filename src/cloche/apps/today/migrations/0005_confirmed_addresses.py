"""Who has had the day by mail until now has shown that the address is theirs."""

from typing import Any

from django.db import migrations


def confirm(apps: Any, schema_editor: Any) -> None:
    address = apps.get_model("account", "EmailAddress")
    for wish in apps.get_model("today", "DigestWish").objects.exclude(sent_on=None).select_related("membership__user"):
        person = wish.membership.user
        taken = address.objects.filter(email__iexact=person.email, verified=True).exists()
        if person.email and not taken and not address.objects.filter(user_id=person.pk, primary=True).exists():
            address.objects.create(user_id=person.pk, email=person.email.lower(), verified=True, primary=True)


class Migration(migrations.Migration):
    dependencies = [("today", "0004_planting"), ("account", "0009_emailaddress_unique_primary_email")]
    operations = [migrations.RunPython(confirm, migrations.RunPython.noop)]
