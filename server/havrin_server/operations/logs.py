"""What is logged: a line of JSON for each thing, and no secret in any of them."""

import json
import logging
import re
from datetime import UTC, datetime

# Whoever reads a log could open what these open: links of customers, invitations, keys of instruments.
_TOKENS = re.compile(r"(/(?:api/)?(?:shared|invitations|join)/)[^/\s?\"']+")
_BEARER = re.compile(r"(?i)(bearer\s+)\S+")
_FIELDS = ("method", "path", "status", "milliseconds", "person", "address")


def without_secrets(text: str) -> str:
    """Return ``text`` with what opens something taken out."""
    return _BEARER.sub(r"\1…", _TOKENS.sub(r"\1…", text))


class WithoutSecrets(logging.Filter):
    """Takes secrets out of a record, its arguments included, before anything writes it."""

    def filter(self, record: logging.LogRecord) -> bool:
        """Change the record; none is dropped."""
        record.msg, record.args = without_secrets(record.getMessage()), None
        if record.exc_info:
            record.exc_text = without_secrets(logging.Formatter().formatException(record.exc_info))
        return True


class JsonLine(logging.Formatter):
    """One record, one line."""

    def format(self, record: logging.LogRecord) -> str:
        """Return the record as JSON."""
        row = {
            "at": datetime.fromtimestamp(record.created, UTC).isoformat(timespec="milliseconds"),
            "level": record.levelname.lower(),
            "from": record.name,
            "says": record.getMessage(),
        }
        row |= {name: getattr(record, name) for name in _FIELDS if hasattr(record, name)}
        if record.exc_text:
            row["trace"] = record.exc_text
        return json.dumps(row, ensure_ascii=False, default=str)
