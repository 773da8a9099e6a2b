from django.apps import AppConfig


class AccountsConfig(AppConfig):
    name = "cloche.apps.accounts"
    label = "accounts"

    def ready(self) -> None:
        from cloche.apps.accounts import security  # noqa: F401 (it listens)
