"""Files that were made to do harm: each is refused in a sentence, by a process that had little to lose."""

import io
import resource
import socket
import struct
import threading
import zipfile
import zlib
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

import openpyxl
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image, PngImagePlugin

from cloche.apart.picture import NoPicture, small_jpeg
from cloche.apart.running import Limits, Refused, TooMuch, run_apart
from cloche.apps.readings.files import tables
from cloche.apps.readings.files.tables import UnreadableFile, read_table, sheet_text
from tests.factories import picture

MB = 1_000_000


def sheet(*cells: tuple[str, object]) -> bytes:
    book = openpyxl.Workbook()
    for where, value in cells:
        book.active[where] = value
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def zipped(**entries: bytes) -> io.BytesIO:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        for name, data in entries.items():
            packed.writestr(name, data)
    out.seek(0)
    return out


def most_memory_mb() -> float:
    """The most that any child of ours has taken so far."""
    return resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1000


def test_a_sheet_whose_two_cells_lie_at_its_ends_is_refused() -> None:
    with pytest.raises(UnreadableFile, match=r"needs too much memory|columns; at most"):
        sheet_text(sheet(("A1", "time"), ("XFD1048576", 1)))
    assert most_memory_mb() < 1_500


def test_a_sheet_of_too_many_columns_is_refused() -> None:
    with pytest.raises(UnreadableFile, match="702 columns; the limit is 100"):
        sheet_text(sheet(("A1", "time"), ("ZZ1000", 1)))


def test_a_sheet_of_too_many_cells_is_refused(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(tables, "MOST_CELLS", 900)
    with pytest.raises(UnreadableFile, match="1,000 cells; the limit is 900"):
        sheet_text(sheet(("A1", "time"), ("J100", 1)))


def test_a_sheet_that_takes_too_long_is_given_up(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(tables, "LIMITS", Limits(cpu_s=0, wall_s=30))
    with pytest.raises(UnreadableFile, match="takes too long to open"):
        sheet_text(sheet(("A1", "time"), ("A2", 1)))


def test_a_sheet_whose_entry_is_a_bomb_is_refused(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(tables, "MOST_UNPACKED_BYTES", 3 * MB)
    bomb = zipped(**{"xl/workbook.xml": b"0" * 5 * MB}).getvalue()
    with pytest.raises(UnreadableFile, match="too large once unpacked"):
        sheet_text(bomb)


def test_an_entry_that_is_larger_than_its_directory_says_is_refused(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(tables, "MOST_UNPACKED_BYTES", 3 * MB)
    data = bytearray(zipped(**{"xl/workbook.xml": b"0" * 5 * MB}).getvalue())
    directory = data.rindex(b"PK\x01\x02")
    data[directory + 24 : directory + 28] = struct.pack("<I", 10)
    with pytest.raises(UnreadableFile):
        sheet_text(bytes(data))


@settings(max_examples=8)
@given(st.binary(max_size=400))
def test_rubbish_that_calls_itself_a_sheet_is_refused(data: bytes) -> None:
    with pytest.raises(UnreadableFile):
        sheet_text(b"PK\x03\x04" + data)


def test_a_table_of_twenty_thousand_columns_is_refused() -> None:
    with pytest.raises(UnreadableFile, match="20,000 columns; at most 100"):
        read_table(",".join(f"c{n}" for n in range(20_000)) + "\n1\n")
    assert len(read_table("a,b\n" + ",".join("1" for _ in range(20_000))).rows[0]) == 100


def text_bomb() -> bytes:
    params = PngImagePlugin.PngInfo()
    params.add_text("note", "0" * 70 * MB, zip=True)
    out = io.BytesIO()
    Image.new("RGB", (4, 4)).save(out, "PNG", pnginfo=params)
    return out.getvalue()


def huge() -> bytes:
    """A picture of 30,000 by 30,000 dots that has four bytes of them."""
    head = struct.pack(">IIBBBBB", 30_000, 30_000, 8, 2, 0, 0, 0)
    chunks = [(b"IHDR", head), (b"IDAT", zlib.compress(b"0000")), (b"IEND", b"")]
    body = b"".join(
        struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data)) for kind, data in chunks
    )
    return b"\x89PNG\r\n\x1a\n" + body


@pytest.mark.parametrize(
    "make",
    [
        text_bomb,
        huge,
        lambda: b"",
        lambda: b"\xff\xd8jpeg",
        lambda: picture(300, 200)[:900],
        lambda: picture(40, 40, "GIF"),
        lambda: b"<svg xmlns='http://www.w3.org/2000/svg'/>",
    ],
)
def test_pictures_that_are_none(make: Callable[[], bytes]) -> None:
    with pytest.raises(NoPicture):
        small_jpeg(make())


def test_a_picture_is_made_small_upright_and_without_its_cameras_notes() -> None:
    notes = Image.Exif()
    notes[0x0112], notes[0x010F] = 6, "A camera"  # turned by a quarter
    kept = small_jpeg(picture(3000, 2000, exif=notes))
    small = Image.open(io.BytesIO(kept))
    assert small.size == (853, 1280)
    assert not small.getexif()
    assert b"A camera" not in kept


@settings(max_examples=60, deadline=None)
@given(at=st.integers(0, 900), value=st.integers(0, 255))
def test_a_picture_with_a_wrong_byte_is_a_picture_or_none(at: int, value: int) -> None:
    data = bytearray(picture(40, 30))
    data[at % len(data)] = value
    try:
        made = small_jpeg(bytes(data))
    except NoPicture:
        return
    assert made.startswith(b"\xff\xd8")


def unpack(
    tmp_path: Path, archive: io.BytesIO, table: int = MB, description: int = MB, photo: int = MB, every: int = 9 * MB
) -> Path:
    source, folder = tmp_path / "a.zip", tmp_path / "out"
    source.write_bytes(archive.getvalue())
    folder.mkdir()
    most = [str(n) for n in (table, description, photo, every)]
    run_apart("unpack", None, Limits(memory_bytes=400 * MB), str(source), str(folder), *most)
    return folder


@pytest.mark.parametrize(
    ("entries", "said"),
    [
        ({"datapackage.json": b" " * 5 * MB}, "datapackage.json unpacks to more than 1 MB"),
        ({"photos/1.jpg": b"\0" * 60 * MB}, "photos/1.jpg unpacks to more than 1 MB"),
        ({"readings.csv": b"0" * 5 * MB}, "readings.csv unpacks to more than 1 MB"),
        ({f"t{chr(97 + n)}.csv": b"0" * 999_000 for n in range(12)}, "too large once unpacked"),
        ({"photos/1.jpg": b"no picture"}, "photos/1.jpg: The picture cannot be read"),
    ],
)
def test_an_archive_that_unpacks_to_too_much_is_refused(tmp_path: Path, entries: dict[str, bytes], said: str) -> None:
    with pytest.raises(Refused, match=said):
        unpack(tmp_path, zipped(**entries))


@pytest.mark.parametrize("name", ["../up.csv", "/abs.csv", "photos/../../up.jpg", "places.csv/x", "UPPER.CSV", "x.exe"])
def test_entries_of_other_names_are_not_touched(tmp_path: Path, name: str) -> None:
    folder = unpack(tmp_path, zipped(**{name: b"x", "places.csv": b"y"}))
    assert [file.name for file in folder.rglob("*.*")] == ["places.csv"]
    assert not (tmp_path / "up.csv").exists()


def locked(data: bytearray) -> None:
    for mark, at in ((b"PK\x03\x04", 6), (b"PK\x01\x02", 8)):
        data[data.index(mark) + at] |= 1


def oddly_packed(data: bytearray) -> None:
    for mark, at in ((b"PK\x03\x04", 8), (b"PK\x01\x02", 10)):
        data[data.index(mark) + at] = 97


def flipped(data: bytearray) -> None:
    data[60] ^= 0xFF


@pytest.mark.parametrize(
    "spoil", [locked, oddly_packed, flipped, lambda data: data.clear(), lambda data: data.__delitem__(slice(-30, None))]
)
def test_a_spoilt_archive_is_refused_in_a_sentence(tmp_path: Path, spoil: Callable[[bytearray], None]) -> None:
    data = bytearray(zipped(**{"readings.csv": bytes(range(256)) * 40}).getvalue())
    spoil(data)
    with pytest.raises(Refused) as why:
        unpack(tmp_path, io.BytesIO(data))
    assert str(why.value).endswith(".")
    assert "Traceback" not in str(why.value)


@contextmanager
def answering(say: Callable[[socket.socket], None]) -> Iterator[str]:
    """A service that says what it likes to one caller."""
    with socket.socket() as listening:
        listening.bind(("127.0.0.1", 0))
        listening.listen()

        def serve() -> None:
            try:
                caller, _ = listening.accept()
                with caller:
                    caller.recv(4096)
                    say(caller)
            except OSError:
                return

        thread = threading.Thread(target=serve, daemon=True)
        thread.start()
        yield f"http://127.0.0.1:{listening.getsockname()[1]}/"


HEAD = b"HTTP/1.1 200 OK\r\n\r\n"


def dripping(caller: socket.socket) -> None:
    caller.sendall(HEAD)
    pause = threading.Event()
    while True:
        caller.sendall(b" ")
        pause.wait(0.1)


def endless(caller: socket.socket) -> None:
    caller.sendall(HEAD)
    while True:
        caller.sendall(b" " * 65_536)


def slow_heading(caller: socket.socket) -> None:
    caller.sendall(b"HTTP/1.1 200 OK\r\nX-Odd: ")
    dripping(caller)


def ask(address: str, wall_s: int = 2) -> bytes:
    return run_apart("fetch", None, Limits(wall_s=wall_s), address, str(MB))


@pytest.mark.parametrize("say", [dripping, slow_heading])
def test_an_answer_that_drips_is_given_up_at_its_deadline(say: Callable[[socket.socket], None]) -> None:
    with answering(say) as address, pytest.raises(TooMuch, match="time"):
        ask(address)


def test_an_answer_without_end_is_refused() -> None:
    with answering(endless) as address, pytest.raises(Refused, match="larger than 1 MB"):
        ask(address, wall_s=30)


@pytest.mark.parametrize(
    "said", [b"", b"rubbish\r\n\r\n", b"HTTP/1.1 500 No\r\n\r\n", b"HTTP/1.1 302 Go\r\nLocation: file:///etc/passwd\r\n\r\n"]
)
def test_an_answer_that_is_none_is_refused_in_a_sentence(said: bytes) -> None:
    with answering(lambda caller: caller.sendall(said)) as address, pytest.raises(Refused) as why:
        ask(address, wall_s=20)
    assert str(why.value).endswith(".")


def test_only_http_is_asked() -> None:
    with pytest.raises(Refused, match="does not begin with http"):
        ask("file:///etc/passwd")
