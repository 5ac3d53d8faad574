"""Sealing a closed visit: its head signed with this installation's own key (Ed25519), which never leaves it."""

import base64
import hashlib
import os
from collections.abc import Mapping
from functools import cache
from pathlib import Path
from typing import Any

from cryptography.exceptions import InvalidSignature
from cryptography.hazmat.primitives.asymmetric.ed25519 import Ed25519PrivateKey, Ed25519PublicKey
from cryptography.hazmat.primitives.serialization import (
    Encoding,
    NoEncryption,
    PrivateFormat,
    PublicFormat,
    load_pem_private_key,
)
from django.conf import settings

from havrin_core.tape.proof import signed_form


def sealed(statement: Mapping[str, Any]) -> dict[str, Any]:
    """Return a statement with its signature and the key that proves it, both in base64."""
    key = _own_key(settings.STATE / "signing-key")
    signature = key.sign(signed_form(statement))
    return {"statement": dict(statement), "signature": _text(signature), "key": _text(_raw(key.public_key()))}


def own_key() -> str:
    """Return the public key of this installation, base64: it may be shown to everybody."""
    return _text(_raw(_own_key(settings.STATE / "signing-key").public_key()))


def holds(text: bytes, given: Any) -> bool:
    """Tell whether a seal is the signature of ``text`` by the key that it names. Whose key that is, is another question."""
    try:
        public = Ed25519PublicKey.from_public_bytes(base64.b64decode(given["key"], validate=True))
        public.verify(base64.b64decode(given["signature"], validate=True), text)
    except (InvalidSignature, ValueError, KeyError, TypeError):
        return False
    return True


def short(key: str) -> str:
    """Return the first digits of a key's digest, to be compared by eye."""
    return hashlib.sha256(key.encode()).hexdigest()[:16]


@cache
def _own_key(file: Path) -> Ed25519PrivateKey:
    """Return the key of this installation; made once, readable by its own user alone."""
    if not file.exists():
        _make(file)
    key = load_pem_private_key(file.read_bytes(), password=None)
    assert isinstance(key, Ed25519PrivateKey)  # nothing else is ever written there
    return key


def _make(file: Path) -> None:
    file.parent.mkdir(parents=True, exist_ok=True)
    made = Ed25519PrivateKey.generate().private_bytes(Encoding.PEM, PrivateFormat.PKCS8, NoEncryption())
    half = file.with_name(f".{file.name}.{os.getpid()}")
    with os.fdopen(os.open(half, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as out:
        out.write(made)
    try:
        os.link(half, file)  # whichever process is first: there is one key, and it is whole
    except FileExistsError:
        pass
    finally:
        half.unlink()


def _raw(key: Ed25519PublicKey) -> bytes:
    return key.public_bytes(Encoding.Raw, PublicFormat.Raw)


def _text(raw: bytes) -> str:
    return base64.b64encode(raw).decode()
