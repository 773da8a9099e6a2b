"""Names of the rules by which growers decide when to sow. Light: pages use them; `sowing_rules` applies them."""

from enum import StrEnum


class SowingRule(StrEnum):
    """How a grower decides when to sow."""

    MINIMUM = "minimum"
    COMFORTABLE = "comfortable"
    CALENDAR = "calendar"
