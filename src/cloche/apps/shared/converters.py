"""A day in an address."""

from datetime import date


class DayConverter:
    """2026-04-09."""

    regex = r"\d{4}-\d{2}-\d{2}"

    def to_python(self, value: str) -> date:
        """A ValueError makes the address one that does not exist."""
        return date.fromisoformat(value)

    def to_url(self, value: date) -> str:
        """ISO."""
        return value.isoformat()
