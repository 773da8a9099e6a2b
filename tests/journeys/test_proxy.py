"""From the phone, through a proxy that speaks TLS with a certificate of one's own: a round, cookies that no plain line
carries, addresses believed from the proxy alone."""

import re
import shutil
import subprocess
import tempfile
import time
from base64 import b64encode
from collections.abc import Iterator
from hashlib import sha256
from pathlib import Path
from typing import Any

import pytest
import requests
from cryptography import x509
from cryptography.hazmat.primitives.serialization import Encoding, PublicFormat
from playwright.sync_api import expect
from urllib3.util import connection

from bench.running import CHROMIUM, WAITS_S, Person, Running, with_tables_made
from cloche.supervisor.ports import free_port
from tests.journeys.conftest import FLAGS
from tests.journeys.test_round import read, settled

NAME = "garden.home.arpa"
NGINX = """daemon off; worker_processes 1; pid {place}/nginx.pid; error_log {place}/error.log;
events {{}}
http {{ access_log off; client_body_temp_path {place}/body; proxy_temp_path {place}/proxy; fastcgi_temp_path {place}/f;
uwsgi_temp_path {place}/u; scgi_temp_path {place}/s; include {place}/cloche.conf; }}
"""


class Behind:
    """Cloche, and a proxy before it."""

    def __init__(self, place: Path) -> None:
        self.http, self.https = free_port(), free_port()
        self.running = Running(with_tables_made(place), CLOCHE_HOSTS=NAME)
        self.running.command("certificate", NAME)
        tls = place / "own" / "tls"
        self.authority, self.certificate = tls / "authority.crt", tls / f"{NAME}.crt"
        conf = (Path(__file__).parents[2] / "docs" / "nginx.conf").read_text()
        own = {"HTTP": self.http, "HTTPS": self.https, "HOST": NAME, "PORT": self.running.port}
        own |= {"CERTIFICATE": tls / f"{NAME}.crt", "KEY": tls / f"{NAME}.key"}
        for word, value in own.items():
            conf = conf.replace(f"@{word}@", str(value))
        (place / "cloche.conf").write_text(conf.replace("https://$host$", f"https://$host:{self.https}$"))
        (place / "nginx.conf").write_text(NGINX.format(place=place))
        self.proxy = subprocess.Popen(["/usr/sbin/nginx", "-e", str(place / "error.log"), "-c", str(place / "nginx.conf")])  # noqa: S603
        self.url = f"https://{NAME}:{self.https}"
        answer: object = None
        for _ in range(600):
            try:
                answer = self.get("/readyz/")
                if answer.status_code == 200:
                    return
            except requests.RequestException as refused:
                answer = refused
            time.sleep(0.1)
        logs = [path.read_text(errors="replace")[-1500:] for path in (place / "said.log", place / "own" / "database.log")]
        raise AssertionError(f"not ready behind its proxy: {answer} {getattr(answer, 'text', '')[:500]}\n{logs}")

    def get(self, path: str, **more: Any) -> requests.Response:
        """As a phone that was told of the authority, and of no other."""
        return requests.get(self.url + path, verify=str(self.authority), timeout=WAITS_S, allow_redirects=False, **more)

    def fingerprint(self) -> str:
        """Of its public key, as browsers write it."""
        key = x509.load_pem_x509_certificate(self.certificate.read_bytes()).public_key()
        info = key.public_bytes(Encoding.DER, PublicFormat.SubjectPublicKeyInfo)
        return b64encode(sha256(info).digest()).decode()

    def stop(self) -> None:
        self.proxy.terminate()
        self.proxy.wait(WAITS_S)
        self.running.stop()


@pytest.fixture(scope="module")
def behind() -> Iterator[Behind]:
    place = Path(tempfile.mkdtemp(prefix="cloche-"))
    place.chmod(0o755)
    real = connection.create_connection
    with pytest.MonkeyPatch.context() as patch:
        # The name is known on the home network alone.
        home = lambda address, *a, **k: real(("127.0.0.1", address[1]) if address[0] == NAME else address, *a, **k)  # noqa: E731
        patch.setattr(connection, "create_connection", home)
        proxied = Behind(place)
        yield proxied
        proxied.stop()
    shutil.rmtree(place, ignore_errors=True)


@pytest.fixture
def nothing_goes_wrong() -> None:
    """Another server than the other journeys'."""


def straight(behind: Behind, host: str) -> requests.Response:
    """Past the proxy, as somebody on the machine could."""
    url = f"http://127.0.0.1:{behind.running.port}/welcome/"
    return requests.get(url, headers={"Host": host}, timeout=WAITS_S, allow_redirects=False)


def test_no_plain_line_carries_anything_of_a_person(behind: Behind) -> None:
    plain = requests.get(f"http://127.0.0.1:{behind.http}/me/", headers={"Host": NAME}, timeout=WAITS_S, allow_redirects=False)
    assert (plain.status_code, plain.headers["Location"]) == (301, f"{behind.url}/me/")
    page = next(page for path in ("/welcome/", "/sign-in/") if (page := behind.get(path)).status_code == 200)
    assert page.headers["Strict-Transport-Security"] == "max-age=31536000"
    cookies = page.headers["Set-Cookie"]
    assert "__Host-csrf=" in cookies
    assert all("Secure" in cookie for cookie in re.split(r", (?=\w+=)", cookies))
    past_it = straight(behind, NAME)
    assert past_it.status_code == 301


def test_nobody_elses_name_is_served(behind: Behind) -> None:
    for host in ("evil.example.org", "127.0.0.1.evil.example.org"):
        welcome = f"http://127.0.0.1:{behind.running.port}/welcome/"
        assert requests.get(welcome, headers={"Host": host}, timeout=WAITS_S).status_code == 400


def test_a_round_from_the_phone(behind: Behind, browser_type: Any) -> None:
    """Also the first page of all: somebody new comes in by it."""
    person = Person(behind.url)
    person.session.verify, person.session.trust_env = str(behind.authority), False
    person.session.headers["Referer"] = behind.url
    person.send("/welcome/", username="rowan", password="spade-and-fork")
    names = f"--host-resolver-rules=MAP {NAME} 127.0.0.1, MAP * ~NOTFOUND, EXCLUDE 127.0.0.1"
    # What the phone is told of the authority, a browser without a store of its own is told of the key.
    believed = f"--ignore-certificate-errors-spki-list={behind.fingerprint()}"
    phone = browser_type.launch_persistent_context(
        str(behind.authority.parents[2] / "phone"),
        executable_path=CHROMIUM,
        args=[*FLAGS[:-1], names, believed],
        viewport={"width": 390, "height": 844},
        has_touch=True,
        locale="en-GB",
    )
    page = phone.new_page()
    page.goto(f"{behind.url}/sign-in/")
    assert page.evaluate("window.isSecureContext"), "without it no passkey and no round without signal"
    page.get_by_label("Name or email address").fill("rowan")
    page.get_by_label("Password").fill("spade-and-fork")
    page.get_by_role("button", name="Sign in", exact=True).click()
    page.wait_for_url("**/gardens/new/**")
    page.goto(f"{behind.url}/gardens/new/?latitude_deg=48.2&longitude_deg=15.6")
    page.get_by_role("button", name="Continue to the beds").click()
    page.get_by_role("button", name="One more: Open bed").click()
    page.get_by_role("button", name="One more: Open bed").click()
    page.get_by_role("button", name="Continue to Today").click()
    page.wait_for_url("**/g/*/")
    garden = page.url.rstrip("/").split("/")[-1]
    page.goto(f"{behind.url}/g/{garden}/round/")
    for digits in ("11.5", "9"):
        assert read(page, digits) == 1
    expect(page.locator("#round-summary")).to_contain_text("2 of 2 places read.")
    settled(page)
    page.goto(f"{behind.url}/g/{garden}/")
    expect(page.get_by_text("2 places read.")).to_be_visible()
    assert {cookie["secure"] for cookie in phone.cookies()} == {True}
    phone.close()


def test_addresses_are_believed_from_the_proxy_alone(behind: Behind) -> None:
    """What a caller says of itself goes no further: eleven wrong tries under changing addresses are one caller's."""
    session = requests.Session()
    session.verify, session.trust_env = str(behind.authority), False
    answers = []
    for number in range(11):
        page = session.get(f"{behind.url}/sign-in/", timeout=WAITS_S)
        token = re.search(r'name="csrfmiddlewaretoken" value="([^"]+)"', page.text)
        assert token is not None
        said = {"username": "rowan", "password": f"wrong{number}", "csrfmiddlewaretoken": token.group(1)}
        heads = {"Referer": behind.url, "X-Forwarded-For": f"10.0.0.{number}", "Forwarded": f"for=10.1.1.{number}"}
        answers.append(session.post(f"{behind.url}/sign-in/", said, headers=heads, timeout=WAITS_S).status_code)
    assert answers[:9] == [422] * 9
    assert answers[-1] == 429
