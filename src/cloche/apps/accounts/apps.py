from django.apps import AppConfig


class AccountsConfig(AppConfig):
    name = "cloche.apps.accounts"
    label = "accounts"
