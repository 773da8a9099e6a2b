"""A wire between browser and server that can be cut: whatever the browser's workers try, nothing gets through."""

from __future__ import annotations

import contextlib
import socket
import threading


class Wire:
    """Forwards bytes from a port of its own to a server's; cut() ends every connection and takes no new one."""

    def __init__(self, host: str, port: int) -> None:
        self.target = (host, port)
        self.whole = threading.Event()
        self.whole.set()
        self.open: set[socket.socket] = set()
        self.ears = socket.create_server(("127.0.0.1", 0))
        self.url = f"http://127.0.0.1:{self.ears.getsockname()[1]}"
        threading.Thread(target=self._listen, daemon=True).start()

    def cut(self) -> None:
        """Nothing gets through from now on."""
        self.whole.clear()
        for end in list(self.open):
            with contextlib.suppress(OSError):
                end.shutdown(socket.SHUT_RDWR)

    def mend(self) -> None:
        """As before."""
        self.whole.set()

    def close(self) -> None:
        """For good."""
        self.cut()
        self.ears.close()

    def _listen(self) -> None:
        while True:
            try:
                near, _ = self.ears.accept()
            except OSError:
                return
            if self.whole.is_set():
                threading.Thread(target=self._join, args=(near,), daemon=True).start()
            else:
                near.close()

    def _join(self, near: socket.socket) -> None:
        try:
            far = socket.create_connection(self.target)
        except OSError:
            near.close()
            return
        self.open |= {near, far}
        back = threading.Thread(target=self._pour, args=(far, near), daemon=True)
        back.start()
        self._pour(near, far)
        back.join()
        self.open -= {near, far}
        near.close()
        far.close()

    @staticmethod
    def _pour(source: socket.socket, sink: socket.socket) -> None:
        with contextlib.suppress(OSError):
            while data := source.recv(65536):
                sink.sendall(data)
        with contextlib.suppress(OSError):
            sink.shutdown(socket.SHUT_WR)
