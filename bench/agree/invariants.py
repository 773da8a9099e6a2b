"""What must hold between the pages of any garden: all of it, in the order of docs/agreement.md, which is held to this list."""

from bench.agree import conditions, crops, raising
from bench.agree.listed import INVARIANTS

__all__ = ["INVARIANTS", "conditions", "crops", "raising"]
