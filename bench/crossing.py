"""Which files one reading crosses on its way to Today: `./run bench crossing`. docs/tour.md walks the same way."""

from __future__ import annotations

import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from types import FrameType
from typing import Any

SOURCE = Path(__file__).parents[1] / "src"


@contextmanager
def crossed() -> Iterator[set[str]]:
    """Files of the application in which a function is called meanwhile; what merely loads a module does not count."""
    files: set[str] = set()

    def note(frame: FrameType, event: str, _arg: Any) -> None:
        code = frame.f_code
        if event == "call" and code.co_name != "<module>" and code.co_filename.startswith(str(SOURCE)):
            files.add(str(Path(code.co_filename).relative_to(SOURCE)))

    sys.setprofile(note)
    try:
        yield files
    finally:
        sys.setprofile(None)


def main() -> int:
    """Print the files of each stage: the request that takes the reading, the worker's task, the page."""
    from django.core.management import call_command
    from django.test import Client, override_settings
    from django.urls import reverse

    from bench.running import reading_form
    from cloche.apps.forecasts.flows import refresh
    from cloche.apps.gardens.models import Garden, User

    call_command("ready", verbosity=0)
    call_command("load_demo", work=True)
    garden = Garden.objects.order_by("pk")[0]
    place = max(garden.places.filter(kind="open"), key=lambda each: each.readings.count())
    here, today = reverse("place", args=[garden.pk, place.pk]), reverse("today", args=[garden.pk])
    with override_settings(ALLOWED_HOSTS=["testserver"]):
        client = Client()
        client.force_login(User.objects.get(username="demo"), backend="allauth.account.auth_backends.AuthenticationBackend")
        typed = reading_form(client.get(here).content.decode()) | {"temperature": "9.4", "time": "00:07"}
        stages: dict[str, Callable[[], Any]] = {
            "the request": lambda: client.post(reverse("add_reading", args=[garden.pk, place.pk]), typed),
            "the worker": lambda: refresh(type(place).objects.get(pk=place.pk)),
            "Today": lambda: client.get(today),
        }
        every: set[str] = set()
        for name, stage in stages.items():
            before = place.readings.count()
            with crossed() as files:
                stage()
            every |= files
            taken = f", which took {place.readings.count() - before} reading" if name == "the request" else ""
            print(f"{name}{taken}: {len(files)} files")
            print("    " + ", ".join(sorted(files)))
    print(f"{len(every)} files in all")
    return 0
