"""Photos, plates and logs in a storage of the S3 kind, instead of on this machine's disk: set under [files] in havrin.toml."""

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from botocore.exceptions import BotoCoreError, ClientError
from django.core.files.base import ContentFile, File
from storages.backends.s3 import S3Storage

from havrin_server.errors import FilesAway


@contextmanager
def _asked() -> Iterator[None]:
    try:
        yield
    except (BotoCoreError, ClientError) as error:
        raise FilesAway(f"The storage of photos and logs does not answer: {error}") from error


class Bucket(S3Storage):  # type: ignore[misc]  # the package has no types
    """A bucket. Whatever it does not do, or not in time, is FilesAway; a name that it has not is FileNotFoundError."""

    def _open(self, name: str, mode: str = "rb") -> "File[bytes]":
        # Read whole, so that what fails does so before an answer begins. A file here has at most 20 MB.
        with _asked(), super()._open(name, mode) as file:
            return ContentFile(file.read(), name)

    def _save(self, name: str, content: "File[bytes]") -> str:
        with _asked():
            return str(super()._save(name, content))

    def exists(self, name: str) -> bool:
        """Tell whether there is such a file."""
        with _asked():
            return bool(super().exists(name))

    def delete(self, name: str) -> None:
        """Remove a file, if there is one."""
        with _asked():
            super().delete(name)

    def size(self, name: str) -> int:
        """Return how long a file is, bytes."""
        with _asked():
            return int(super().size(name))

    def listdir(self, name: str) -> Any:
        """Return the folders and the files in one."""
        with _asked():
            return super().listdir(name)
