"""The server's own refusals, beside the core's.

ServerError
├── NotAllowed      the person's role does not cover it
├── NotFound        nothing of that kind in this person's firm
├── VisitClosed     the tape takes no more entries
├── VisitMoved      somebody wrote since the page was loaded
├── PlanMoved       somebody changed a visit's plan since it was seen
├── CannotClose     a rule holds the visit open
├── NotWritable     a line that was not understood whole
├── TooMany         more at once than one person, or the server, carries
├── FileRefused     an upload that is not what it should be
└── FilesAway       where photos and logs are kept does not answer
"""


class ServerError(Exception):
    """Base; ``code`` is stable for programs, ``message`` is for people."""

    code = "server_error"
    status = 400

    def __init__(self, message: str, *, code: str | None = None, details: list[str] | None = None) -> None:
        super().__init__(message)
        self.message = message
        self.code = code or type(self).code
        self.details = details or []
        self.fields: dict[str, str] = {}  # what is wrong with which field of what was sent


class NotAllowed(ServerError):
    """The person may not do this."""

    code, status = "not_allowed", 403


class NotFound(ServerError):
    """There is no such thing for this person."""

    code, status = "not_found", 404


class VisitClosed(ServerError):
    """The visit is closed."""

    code, status = "visit_closed", 409


class VisitMoved(ServerError):
    """The tape went on since it was seen."""

    code, status = "visit_moved", 409


class PlanMoved(ServerError):
    """The plan of a visit was changed since it was seen."""

    code, status = "plan_moved", 409


class CannotClose(ServerError):
    """The visit cannot be closed as it stands."""

    code, status = "cannot_close", 422


class NotWritable(ServerError):
    """The line has pieces that were not understood."""

    code, status = "line_not_understood", 422


class TooMany(ServerError):
    """More at once, or more often, than is carried."""

    code, status = "too_many", 429


class FileRefused(ServerError):
    """The file cannot be taken."""

    code, status = "file_refused", 422


class FilesAway(ServerError):
    """Where photos and logs are kept does not answer; ``args`` say what it said, the message is for people."""

    code, status = "files_away", 503

    def __init__(self, said: str) -> None:
        super().__init__(
            "Photos and logs cannot be reached just now. What you took is kept on your tablet; it is sent again."
        )
        self.args = (said,)
