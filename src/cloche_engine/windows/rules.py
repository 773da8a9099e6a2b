"""Names of the rules by which growers decide when to sow. Light: pages use them; `sowing_rules` applies them."""

from enum import StrEnum


class SowingRule(StrEnum):
    """Rule by which a grower chooses the date of sowing."""

    MINIMUM = "minimum"
    COMFORTABLE = "comfortable"
    CALENDAR = "calendar"
