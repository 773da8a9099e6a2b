from django.apps import AppConfig


class PlacesConfig(AppConfig):
    name = "cloche.apps.places"
    label = "places"

    def ready(self) -> None:
        """The forecasts of all its places rest on a garden's site."""
        from cloche.apps.gardens.signals import site_changed
        from cloche.apps.places.flows import note_site

        site_changed.connect(note_site, dispatch_uid="forecasts-rest-on-the-site")
