"""Django's command line, with the settings that `./run` chose."""

import os
import sys

from django.core.management import execute_from_command_line


def main() -> None:
    """Run one management command."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "cloche.config.settings.production")
    execute_from_command_line(sys.argv)


if __name__ == "__main__":
    main()
