"""From bytes to lines: byte order marks, UTF-8 and UTF-16 without one, else the Western code page."""

from havrin_core.errors import BadDocument
from havrin_core.phrases import phrase

_MARKS = ((b"\xef\xbb\xbf", "utf-8-sig"), (b"\xff\xfe", "utf-16"), (b"\xfe\xff", "utf-16"))
_HEAD = 4096


def encoding_of(head: bytes) -> str:
    """Return the encoding of a text that begins with ``head``. Raises BadDocument: empty, or no text."""
    if not head.strip():
        raise BadDocument("log_empty", phrase("file_empty"), value="file")
    for mark, name in _MARKS:
        if head.startswith(mark):
            return name
    start = head[:_HEAD]
    evens, odds = start[0::2].count(0), start[1::2].count(0)
    if odds > 0.3 * len(start) / 2 > evens:
        return "utf-16-le"
    if evens > 0.3 * len(start) / 2 > odds:
        return "utf-16-be"
    if b"\0" in head:
        raise BadDocument("log_not_text", phrase("no_text_file_log_csv"), value="file")
    try:
        head.decode("utf-8")
    except UnicodeDecodeError as error:
        if error.start < len(head) - 4:  # else a character cut at the end of the head
            return "cp1252"
    return "utf-8"


def lines_of(raw: bytes) -> tuple[list[str], str]:
    """Return the lines of a whole file and its encoding; CR, LF and both end a line. Raises BadDocument."""
    name = encoding_of(raw)
    return raw.decode(name, errors="replace").splitlines(), name
