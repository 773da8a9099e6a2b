"""People, gardens, who belongs to which, the places of a garden, their seed and their covers."""

from cloche.apps.gardens.models.covers import Cover, CoverPeriod, Hotbed, Operation
from cloche.apps.gardens.models.places import ASPECTS, CurrentPlaces, Place
from cloche.apps.gardens.models.seed import MOST_MONEY, MOST_TESTED, CropChoice, Packet
from cloche.apps.gardens.models.sites import Garden, Invitation, Membership, User, zone_of

__all__ = ["ASPECTS", "MOST_MONEY", "MOST_TESTED", "Cover", "CoverPeriod", "CropChoice", "Garden", "Hotbed", "Operation"]
__all__ += ["CurrentPlaces", "Invitation", "Membership", "Packet", "Place", "User", "zone_of"]
