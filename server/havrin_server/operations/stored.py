"""The files that belong to the data, photos, plates and logs, wherever they are kept."""

import hashlib
import uuid
from collections.abc import Iterator
from pathlib import Path
from typing import IO

from django.conf import settings
from django.core.files.base import ContentFile, File
from django.core.files.storage import Storage, default_storage

PIECE = 1024 * 1024


def names(storage: Storage = default_storage, folder: str = "") -> Iterator[str]:
    """Yield the name of every file that is kept, in their order."""
    try:
        folders, files = storage.listdir(folder)
    except FileNotFoundError:
        return
    for file in sorted(set(files)):  # a bucket lists in pages, and may say a folder in several
        yield f"{folder}{file}"
    for inner in sorted(set(folders)):
        yield from names(storage, f"{folder}{inner}/")


def put_back(name: str, content: IO[bytes], storage: Storage = default_storage) -> None:
    """Have a file with this content under this very name. One that is there and is the same is left alone."""
    if storage.exists(name):
        with storage.open(name) as there:
            if digest(there) == digest(content):
                return
        content.seek(0)
        storage.delete(name)
    kept = storage.save(name, File(content))
    assert kept == name, (kept, name)  # nothing else makes files while these are put back


def carry_over() -> int:
    """Copy what lies on this machine's disk to where files are kept now; return how many. Those here stay."""
    count = 0
    for file in sorted(Path(settings.MEDIA_ROOT).rglob("*")):
        if file.is_file():
            with file.open("rb") as content:
                put_back(file.relative_to(settings.MEDIA_ROOT).as_posix(), content)
            count += 1
    return count


def try_out() -> None:
    """Write, read and remove a file. Raises OSError or FilesAway where one of it does not work."""
    said = uuid.uuid4().hex.encode()
    name = default_storage.save(f"tried-{said.decode()}", ContentFile(said))
    try:
        with default_storage.open(name) as file:
            if file.read() != said:
                raise OSError("what was written is not what is read")
    finally:
        default_storage.delete(name)


def digest(source: "IO[bytes] | File[bytes]") -> str:
    """Return the SHA-256 of what is left to read, hexadecimal."""
    found = hashlib.sha256()
    for piece in iter(lambda: source.read(PIECE), b""):
        found.update(piece)
    return found.hexdigest()
