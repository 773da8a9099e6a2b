"""A garden's archive, unpacked into a folder: its description, its tables, and its pictures made anew.

Words: the archive, the folder, most bytes of a table, of the description, of a picture, of all together.
Nothing else of the archive is touched, whatever its entries are called.
"""

from __future__ import annotations

import re
import sys
import zipfile
import zlib
from pathlib import Path

from cloche.apart.picture import NoPicture, small_jpeg
from cloche.apart.running import limited, refuse

TABLE = re.compile(r"[a-z_]{1,40}\.csv")
PICTURE = re.compile(r"photos/[0-9]{1,9}\.jpg")
DESCRIPTION = "datapackage.json"
PIECE = 1_000_000
MOST_ENTRIES = 200_000


class Budget:
    """Number of bytes that may still be unpacked."""

    def __init__(self, most: int) -> None:
        self.left = most

    def spend(self, count: int) -> None:
        """Deduct a count of bytes, or refuse if it exceeds the rest."""
        self.left -= count
        if self.left < 0:
            refuse("This archive is too large once unpacked.")


def main() -> None:
    """Unpack each entry after checking its actual content."""
    source, folder, *numbers = limited()
    table, description, picture, everything = (int(n) for n in numbers)
    most = {TABLE: table, PICTURE: picture}
    (Path(folder) / "photos").mkdir()
    budget = Budget(everything)
    try:
        with zipfile.ZipFile(source) as packed:
            entries = packed.infolist()
            if len(entries) > MOST_ENTRIES:
                refuse(f"The archive has {len(entries):,} entries, which is too many.")
            for part in entries:
                limit = description if part.filename == DESCRIPTION else _limit(part.filename, most)
                if limit:
                    _unpack(packed, part, Path(folder), limit, budget)
    except zipfile.BadZipFile:
        refuse("This is not a zip file, or it is damaged.")
    except (RuntimeError, NotImplementedError):
        refuse("The archive is protected by a password or uses an unknown compression.")
    except (zlib.error, EOFError, ValueError, UnicodeError):
        refuse("The archive is damaged: one of its entries cannot be unpacked.")


def _limit(name: str, most: dict[re.Pattern[str], int]) -> int:
    return next((limit for pattern, limit in most.items() if pattern.fullmatch(name)), 0)


def _unpack(packed: zipfile.ZipFile, part: zipfile.ZipInfo, folder: Path, limit: int, budget: Budget) -> None:
    target, size = folder / part.filename, 0
    with packed.open(part) as entry, target.open("xb") as out:
        while piece := entry.read(PIECE):
            size += len(piece)
            budget.spend(len(piece))
            if size > limit:
                refuse(f"{part.filename} unpacks to more than {limit / 1e6:,.0f} MB.")
            out.write(piece)
    if PICTURE.fullmatch(part.filename):
        try:
            target.write_bytes(small_jpeg(target.read_bytes()))
        except NoPicture as why:
            refuse(f"{part.filename}: {why}")


if __name__ == "__main__":
    main()
    sys.exit(0)
