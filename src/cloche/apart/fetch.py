"""What an address answers, on standard output. Words: the address, most bytes. Its time in all is the process's own."""

from __future__ import annotations

import sys
import urllib.error
import urllib.request

from cloche.apart.running import MISASKED, REFUSED, limited, refuse

QUIET_S = 8.0
OF_THE_QUESTION = (400, 404, 410, 422)
"""Answers that say of the question, not of the service, that something is amiss."""


def main() -> None:
    """Send one request and write the answer."""
    address, most = limited()
    if not address.startswith(("http://", "https://")):
        refuse("Its address does not begin with http:// or https://.")
    request = urllib.request.Request(address, headers={"Accept": "application/json", "User-Agent": "cloche"})  # noqa: S310
    try:
        with urllib.request.urlopen(request, timeout=QUIET_S) as answer:  # noqa: S310 - HTTP only
            data = answer.read(int(most) + 1)
    except urllib.error.HTTPError as refused:
        refuse(f"It answers with {refused.code}.", MISASKED if refused.code in OF_THE_QUESTION else REFUSED)
    except (OSError, ValueError) as lost:
        refuse(f"It does not answer ({type(lost).__name__}).")
    except Exception as odd:  # noqa: BLE001 - http.client's own errors share no parent; the sentence is all that is wanted
        refuse(f"Its answer is not valid HTTP ({type(odd).__name__}).")
    if len(data) > int(most):
        refuse(f"Its answer is larger than {int(most) / 1e6:.0f} MB.")
    sys.stdout.buffer.write(data)
    sys.stdout.flush()


if __name__ == "__main__":
    main()
