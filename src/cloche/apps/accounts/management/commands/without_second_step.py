"""Whoever keeps the computer lets somebody in again whose phone is lost, and the spare codes with it."""

from __future__ import annotations

import logging
from typing import Any

from allauth.mfa.models import Authenticator
from django.core.management.base import BaseCommand, CommandError

from cloche.apps.gardens.models import User

log = logging.getLogger("cloche.security")


class Command(BaseCommand):
    help = "Take away a person's second step: codes from the phone, spare codes and passkeys."

    def add_arguments(self, parser: Any) -> None:
        parser.add_argument("name")

    def handle(self, *args: Any, name: str, **options: Any) -> None:
        person = User.objects.filter(username=name).first()
        if person is None:
            raise CommandError(f"Nobody here is called {name}.")
        gone, _each = Authenticator.objects.filter(user=person).delete()
        log.warning("the second step of person %s is taken away at the machine", person.pk)
        self.stdout.write("No second step is asked for now." if gone else "There was no second step.")
