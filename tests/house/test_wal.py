"""Back to a minute: by the commands themselves, on a database of its own."""

import os
import shutil
import subprocess
import tempfile
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
QUERY = """set -euo pipefail; ROOT={root}; HERE=$PWD; cd "$ROOT"
. scripts/setup.sh; . scripts/database.sh; . scripts/serve.sh; . scripts/install.sh; . scripts/wal.sh
with_database own
pg psql -X -qAt -v ON_ERROR_STOP=1 -d cloche -c "$1"
"""


class Kept:
    """Data of which every minute is kept."""

    def __init__(self, home: Path) -> None:
        self.home = home
        self.wal = home / "minutes"
        mine = {k: v for k, v in os.environ.items() if not k.startswith(("CLOCHE_", "DJANGO_", "PYTHONPATH"))}
        self.env = mine | {"CLOCHE_HOME": str(home), "CLOCHE_WAL": str(self.wal), "CLOCHE_CONF": str(home / "conf")}

    def sql(self, words: str) -> list[str]:
        """What the database answers, started for this."""
        command = ["/bin/bash", "-c", QUERY.format(root=ROOT), "sql", words]
        done = subprocess.run(command, env=self.env, capture_output=True, text=True)  # noqa: S603 - our own words
        assert done.returncode == 0, done.stderr
        return done.stdout.split()

    def run(self, *words: str, fails: bool = False) -> str:
        done = subprocess.run([str(ROOT / "run"), *words], env=self.env, capture_output=True, text=True)  # noqa: S603
        assert (done.returncode != 0) is fails, done.stderr
        return done.stderr


@pytest.fixture(scope="module")
def kept() -> Iterator[Kept]:
    home = Path(tempfile.mkdtemp(prefix="cloche-"))
    home.chmod(0o755)
    yield Kept(home)
    shutil.rmtree(home, ignore_errors=True)


def test_the_data_come_back_as_they_were_at_any_time_that_is_kept(kept: Kept) -> None:
    kept.sql("CREATE TABLE said (number int); INSERT INTO said VALUES (1)")
    early = datetime.now(UTC).isoformat()
    assert "A whole copy is in" in kept.run("base")
    kept.sql("INSERT INTO said VALUES (2)")
    then = datetime.now(UTC)
    kept.sql("SELECT pg_sleep(0.1); INSERT INTO said VALUES (3)")
    assert "no whole copy" in kept.run("restore", "--at", early, fails=True)
    assert "is no time" in kept.run("restore", "--at", "soon", fails=True)
    # Later than anything that was ever kept: said, and nothing is lost by having asked.
    assert "cannot be reached" in kept.run("restore", "--at", "2099-01-01T00:00:00Z", fails=True)
    assert kept.sql("SELECT number FROM said ORDER BY 1") == ["1", "2", "3"]
    assert "Your data are as they were" in kept.run("restore", "--at", then.isoformat())
    assert kept.sql("SELECT number FROM said ORDER BY 1") == ["1", "2"]
    # What stood before is beside, and what is written now is kept again.
    assert list((kept.home / "own" / "db").glob("data-before-*Z"))
    kept.sql("INSERT INTO said VALUES (4)")
    assert "latest" in kept.run("restore", "--at", "latest")
    assert kept.sql("SELECT number FROM said ORDER BY 1") == ["1", "2", "4"]


def test_without_a_folder_nothing_is_kept_and_it_is_said(kept: Kept) -> None:
    del kept.env["CLOCHE_WAL"]
    assert kept.sql("SHOW archive_mode") == ["off"]
    assert "say where minutes are kept first" in kept.run("base", fails=True)
    assert "no minutes are kept" in kept.run("restore", "--at", "latest", fails=True)
    kept.env["CLOCHE_WAL"] = "/tmp/a folder; rm"  # noqa: S108 - refused
    assert "is a whole path of" in kept.run("base", fails=True)
