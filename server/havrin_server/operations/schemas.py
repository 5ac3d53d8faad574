"""What operators and their programs ask."""

from havrin_server.view_model import ViewModel


class Ready(ViewModel):
    """Whether the server can work, and what of it is there. Without the queue long work waits, and all else goes on."""

    ready: bool
    database: bool
    migrations: bool
    disk: bool
    queue: bool
