"""Beyond loopback only encrypted, under names that are listed, at an address that can be opened."""

from __future__ import annotations

import ssl
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from cryptography import x509

from ironkettle import tls as certificate
from ironkettle.launch import address
from ironkettle.launch.address import LOOPBACK_NAMES, Listening, is_any, is_loopback, listening_on
from ironkettle.launch.trouble import Trouble


@pytest.fixture
def no_tls(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setattr(address, "TLS", tmp_path / "tls")
    return tmp_path / "tls"


@pytest.mark.parametrize(
    ("host", "loopback"),
    [("127.0.0.1", True), ("127.9.9.9", True), ("::1", True), ("localhost", True), ("0.0.0.0", False),
     ("192.168.1.7", False), ("bench.local", False), ("::", False), ("", False)],
)  # fmt: skip
def test_what_is_loopback(host: str, loopback: bool) -> None:
    assert is_loopback(host) is loopback


def test_loopback_needs_no_certificate_and_answers_to_itself_alone(no_tls: Path) -> None:
    plain = listening_on("127.0.0.1", 8440)
    assert (plain.address, plain.names, plain.open_to_others) == ("http://127.0.0.1:8440", LOOPBACK_NAMES, False)
    assert Listening("::1", 8440).address == "http://[::1]:8440"


@pytest.mark.parametrize("host", ["0.0.0.0", "192.168.1.7", "bench.local", "::"])
def test_beyond_loopback_it_starts_only_encrypted(no_tls: Path, host: str) -> None:
    with pytest.raises(Trouble, match="must be encrypted"):
        listening_on(host, 8440)


def test_certificate_and_key_belong_together_and_are_there(no_tls: Path, tmp_path: Path) -> None:
    with pytest.raises(Trouble, match="belong together"):
        listening_on("0.0.0.0", 8440, cert="x.pem")
    with pytest.raises(Trouble, match="There is no file"):
        listening_on("0.0.0.0", 8440, cert=str(tmp_path / "x.pem"), key=str(tmp_path / "y.pem"))


def test_the_printed_address_can_be_opened(no_tls: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(address, "host_names", lambda: ("192.168.1.7", "bench", "bench.local"))
    monkeypatch.setattr(certificate, "host_names", lambda: ("192.168.1.7", "bench", "bench.local"))
    certificate.make_certificate(no_tls, [])
    everywhere = listening_on("0.0.0.0", 8440)
    assert everywhere.address == "https://192.168.1.7:8440"
    assert everywhere.own_address == "https://127.0.0.1:8440"
    assert set(everywhere.names) >= {"192.168.1.7", "bench.local", "localhost"}
    assert is_any("0.0.0.0")
    named = listening_on("kettle.shop.lan", 8440)
    assert named.address == "https://kettle.shop.lan:8440"
    assert "kettle.shop.lan" in named.names


def test_names_given_to_the_certificate_are_answered_to(no_tls: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    no_tls.mkdir()
    (no_tls / "names").write_text("kettle.shop.lan\nold-name\n")
    assert address.host_names()[:2] == ("kettle.shop.lan", "old-name")


def test_the_certificate_is_by_the_shops_own_authority_and_holds_its_names(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(certificate, "host_names", lambda: ("192.168.1.7", "bench.local"))
    until = certificate.make_certificate(tmp_path, ["kettle.shop.lan"])
    assert timedelta(days=390) < until - datetime.now(UTC) < timedelta(days=398)
    for name in ("key.pem", "ca.key"):
        assert (tmp_path / name).stat().st_mode & 0o077 == 0
    first, authority = (tmp_path / "cert.pem").read_bytes(), (tmp_path / "ca.pem").read_bytes()
    made = x509.load_pem_x509_certificate(first)
    made.verify_directly_issued_by(x509.load_pem_x509_certificate(authority))
    names = made.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    assert "bench.local" in names.get_values_for_type(x509.DNSName)
    assert "192.168.1.7" in [str(one) for one in names.get_values_for_type(x509.IPAddress)]
    # Python's own TLS takes the pair; renewed, the authority that devices trust stays the same.
    context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    context.load_cert_chain(tmp_path / "cert.pem", tmp_path / "key.pem")
    certificate.make_certificate(tmp_path, [])
    assert (tmp_path / "ca.pem").read_bytes() == authority
    assert (tmp_path / "cert.pem").read_bytes() != first
    assert (tmp_path / "names").read_text() == "kettle.shop.lan\n"


@pytest.mark.parametrize("name", ["", "a b", "http://x", "x:8440", "user@x"])
def test_a_name_that_is_none_is_refused(
    name: str, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setattr("sys.argv", ["certificate", "--name", name])
    assert certificate.main() == 1
    assert "is not the name of a machine" in capsys.readouterr().err
