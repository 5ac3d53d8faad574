"""What a paper may be made of: its own fonts, and pictures that stand in it. Nothing of any network or other file."""

from pathlib import Path
from typing import Any
from urllib.parse import unquote, urlsplit

from weasyprint.urls import URLFetcher

_FONTS = Path(__file__).parent / "fonts"


class OwnFilesOnly(URLFetcher):  # type: ignore[misc]  # the package has no types
    """Fetches what ships with the papers and what stands in them; anything else is refused."""

    def fetch(self, url: str, headers: Any = None) -> Any:
        """Return the response for ``url``. Raises ValueError for what is not a paper's own."""
        if not url.startswith("data:") and not is_font(url):
            raise ValueError(f"A paper takes nothing from {url[:80]!r}.")
        return super().fetch(url, headers)


def is_font(url: str) -> bool:
    """Tell whether an address is a file in the folder of fonts."""
    parts = urlsplit(url)
    place = Path(unquote(parts.path)).resolve()
    return parts.scheme == "file" and not parts.netloc and place.parent == _FONTS
