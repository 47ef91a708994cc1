"""./kettle certificate: a small authority of the shop's own, and a certificate for this machine by it.

The authority's certificate (``ca.pem``) is what other devices are told to trust, once; the machine's own
is renewed by calling this again.
"""

from __future__ import annotations

import argparse
import ipaddress
import os
import sys
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

from ironkettle.launch.address import LOOPBACK_NAMES, TLS, host_names

AUTHORITY_DAYS = 3650
# The longest that browsers take for a machine's certificate.
MACHINE_DAYS = 397


def main() -> int:
    parser = argparse.ArgumentParser()
    parser.add_argument("--name", action="append", default=[])
    names = parser.parse_args().name
    for name in names:
        if not name or len(name) > 200 or any(char.isspace() or char in "/:@" for char in name):
            print(f"kettle: “{name}” is not the name of a machine.", file=sys.stderr)
            return 1
    until = make_certificate(TLS, names)
    print(f"The certificate of this machine is in {TLS / 'cert.pem'}, good until {until:%Y-%m-%d}.")
    print(f"Names: {', '.join(all_names())}.")
    print(f"Let other devices trust {TLS / 'ca.pem'} once, then: ./kettle start --host 0.0.0.0")
    return 0


def all_names() -> tuple[str, ...]:
    return (*host_names(), *LOOPBACK_NAMES)


def make_certificate(folder: Path, names: list[str]) -> datetime:
    """Write ca.pem, ca.key (kept when there), cert.pem, key.pem and the further names; gives when it ends."""
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    if names:
        (folder / "names").write_text("\n".join(names) + "\n")
    authority, authority_key = _authority(folder)
    key = ec.generate_private_key(ec.SECP256R1())
    now = datetime.now(UTC)
    until = min(now + timedelta(days=MACHINE_DAYS), authority.not_valid_after_utc)
    certificate = (
        _begun("Iron Kettle", key.public_key(), authority.subject, now, until)
        .add_extension(x509.SubjectAlternativeName([_general_name(name) for name in all_names()]), critical=False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .sign(authority_key, hashes.SHA256())
    )
    _write(folder / "key.pem", _key_text(key), secret=True)
    _write(folder / "cert.pem", _text(certificate) + _text(authority))
    return until


def _authority(folder: Path) -> tuple[x509.Certificate, ec.EllipticCurvePrivateKey]:
    if (folder / "ca.pem").exists() and (folder / "ca.key").exists():
        certificate = x509.load_pem_x509_certificate((folder / "ca.pem").read_bytes())
        key = serialization.load_pem_private_key((folder / "ca.key").read_bytes(), None)
        if isinstance(key, ec.EllipticCurvePrivateKey) and certificate.not_valid_after_utc > datetime.now(UTC):
            return certificate, key
    key = ec.generate_private_key(ec.SECP256R1())
    now = datetime.now(UTC)
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Iron Kettle, this workshop")])
    certificate = (
        _begun("Iron Kettle, this workshop", key.public_key(), name, now, now + timedelta(days=AUTHORITY_DAYS))
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .sign(key, hashes.SHA256())
    )
    _write(folder / "ca.key", _key_text(key), secret=True)
    _write(folder / "ca.pem", _text(certificate))
    return certificate, key


def _begun(
    name: str, key: ec.EllipticCurvePublicKey, issuer: x509.Name, begins: datetime, ends: datetime
) -> x509.CertificateBuilder:
    # A minute back: the clock of the other device may be a little behind.
    return (
        x509.CertificateBuilder()
        .subject_name(x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, name)]))
        .issuer_name(issuer)
        .public_key(key)
        .serial_number(x509.random_serial_number())
        .not_valid_before(begins - timedelta(minutes=1))
        .not_valid_after(ends)
    )


def _general_name(name: str) -> x509.GeneralName:
    try:
        return x509.IPAddress(ipaddress.ip_address(name))
    except ValueError:
        return x509.DNSName(name)


def _text(certificate: x509.Certificate) -> bytes:
    return certificate.public_bytes(serialization.Encoding.PEM)


def _key_text(key: ec.EllipticCurvePrivateKey) -> bytes:
    return key.private_bytes(
        serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
    )


def _write(path: Path, content: bytes, *, secret: bool = False) -> None:
    whole = path.with_name(path.name + ".new")
    whole.unlink(missing_ok=True)
    with os.fdopen(os.open(whole, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600 if secret else 0o644), "wb") as file:
        file.write(content)
    whole.replace(path)


if __name__ == "__main__":
    sys.exit(main())
