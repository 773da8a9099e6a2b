from django.apps import AppConfig


class PlanConfig(AppConfig):
    name = "cloche.apps.plan"
    label = "plan"
