"""Every address of the application."""

from django.urls import include, path

from cloche.apps.gardens import views as founding
from cloche.apps.gardens import views as gardens
from cloche.apps.loggers.api import api as loggers
from cloche.apps.records import views as erasing
from cloche.apps.records import views as records
from cloche.apps.rounds import views as rounds
from cloche.apps.today import views as today
from cloche.apps.upkeep import views as upkeep

urlpatterns = [
    path("", gardens.home, name="home"),
    path("", include("cloche.apps.accounts.urls")),
    path("me/erase/", erasing.erase_account, name="erase_account"),
    path("help/", gardens.help_page, name="help"),
    path("gardens/new/", founding.new_garden, name="new_garden"),
    path("gardens/zones/", founding.zones, name="zones"),
    path("gardens/new/towns/", founding.towns, name="towns"),
    path("worker.js", rounds.service_worker, name="service_worker"),
    path("manifest.webmanifest", rounds.manifest, name="manifest"),
    path("no-signal/", rounds.no_signal, name="no_signal"),
    path("gardens/bring/", records.archive_in, name="archive_in"),
    path("gardens/bring/<int:archive_id>/", records.archive_coming, name="archive_coming"),
    path("healthz/", upkeep.alive, name="alive"),
    path("readyz/", upkeep.ready, name="ready"),
    path("api/v1/", loggers.urls),
    path("calendar/<str:token>.ics", today.feed, name="feed"),
    path(
        "g/<int:garden_id>/",
        include(
            [
                path("", include("cloche.apps.today.urls")),
                path("garden/runs/", upkeep.how_it_runs, name="how_it_runs"),
                path("garden/computer/", upkeep.computer, name="computer"),
                path("garden/runs/<int:failure_id>/again/", upkeep.try_again, name="try_again"),
                path("garden/", include("cloche.apps.gardens.urls")),
                path("garden/", include("cloche.apps.places.urls")),
                path("", include("cloche.apps.seed.urls")),
                path("", include("cloche.apps.weather.urls")),
                path("", include("cloche.apps.records.urls")),
                path("", include("cloche.apps.rounds.urls")),
                path("", include("cloche.apps.covers.urls")),
                path("", include("cloche.apps.bench.urls")),
                path("", include("cloche.apps.plan.urls")),
                path("", include("cloche.apps.years.urls")),
                path("", include("cloche.apps.trials.urls")),
                path("", include("cloche.apps.readings.urls")),
                path("", include("cloche.apps.loggers.urls")),
                path("", include("cloche.apps.sowings.urls")),
                path("", include("cloche.apps.windows.urls")),
            ]
        ),
    ),
]

handler404 = "cloche.apps.gardens.views.not_found"
handler500 = "cloche.apps.shared.availability.fault"
