"""What the engine refuses, in words that a grower can act on."""

from __future__ import annotations


class CoreError(ValueError):
    """Something was asked that the engine cannot answer. `code` is for machines, the message for people."""

    code = "core_error"


class OutOfRange(CoreError):
    """A quantity lies outside what can physically be meant: usually a slip of unit or decimal point."""

    code = "out_of_range"


class NotEnoughData(CoreError):
    """There is too little to compute from; the message says what is missing."""

    code = "not_enough_data"


class UnknownCrop(CoreError):
    """No crop of that key is in the catalogue."""

    code = "unknown_crop"


class UnknownCover(CoreError):
    """No cover of that key is known."""

    code = "unknown_cover"
