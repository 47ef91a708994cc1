"""Where the server listens, under which names, and the address that can be opened."""

from __future__ import annotations

import ipaddress
import socket
from dataclasses import dataclass
from pathlib import Path

from ironkettle.launch.trouble import VAR, Trouble

LOOPBACK_NAMES = ("127.0.0.1", "localhost", "::1")
TLS = VAR / "tls"


@dataclass(frozen=True)
class Listening:
    """Host and port to listen on, the names it answers to, and its certificate if it has one."""

    host: str
    port: int
    names: tuple[str, ...] = LOOPBACK_NAMES
    cert: str | None = None
    key: str | None = None

    @property
    def open_to_others(self) -> bool:
        return not is_loopback(self.host)

    @property
    def address(self) -> str:
        """An address that can be opened, also from another device when the server listens for them."""
        name = self.host
        if is_any(self.host):
            name = next((known for known in self.names if known not in LOOPBACK_NAMES), "127.0.0.1")
        return self._url(name)

    @property
    def own_address(self) -> str:
        """How the launcher itself reaches it."""
        return self._url("127.0.0.1" if is_any(self.host) else self.host)

    def _url(self, name: str) -> str:
        return f"{'https' if self.cert else 'http'}://{f'[{name}]' if ':' in name else name}:{self.port}"


def listening_on(host: str, port: int, cert: str | None = None, key: str | None = None) -> Listening:
    """The address as asked for. Beyond loopback it needs a certificate. Raises Trouble."""
    if (cert is None) != (key is None):
        raise Trouble("--cert and --key belong together: give both, or neither.")
    if cert is None and not is_loopback(host) and (TLS / "cert.pem").exists():
        cert, key = str(TLS / "cert.pem"), str(TLS / "key.pem")
    if cert is None and not is_loopback(host):
        raise Trouble(
            f"On {host} others can reach the server, so it must be encrypted: give --cert and --key, or make a local "
            "certificate with ./kettle certificate."
        )
    for path in (cert, key):
        if path is not None and not Path(path).is_file():
            raise Trouble(f"There is no file {path}.")
    names = LOOPBACK_NAMES if is_loopback(host) else (*host_names(), *LOOPBACK_NAMES)
    if host not in names and not is_any(host):
        names = (host, *names)
    return Listening(host, port, names, cert, key)


def host_names() -> tuple[str, ...]:
    """What others may call this machine: names given to the certificate, its own names, its addresses."""
    own = socket.gethostname()
    given = (TLS / "names").read_text().split() if (TLS / "names").exists() else []
    return tuple(dict.fromkeys([*given, *_addresses(), own, f"{own.split('.')[0]}.local"]))


def is_loopback(host: str) -> bool:
    if host == "localhost":
        return True
    try:
        return ipaddress.ip_address(host).is_loopback
    except ValueError:
        return False


def is_any(host: str) -> bool:
    return host in {"0.0.0.0", "::", ""}


def _addresses() -> list[str]:
    """The address other machines would see this one at; asking the kernel sends nothing."""
    found = []
    for family, somewhere in ((socket.AF_INET, "192.0.2.1"), (socket.AF_INET6, "2001:db8::1")):
        try:
            with socket.socket(family, socket.SOCK_DGRAM) as probe:
                probe.connect((somewhere, 9))
                found.append(str(probe.getsockname()[0]))
        except OSError:
            continue
    return [address for address in found if not is_loopback(address)]
