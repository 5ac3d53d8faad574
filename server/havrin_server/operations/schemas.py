"""What operators and their programs ask."""

from havrin_server.view_model import ViewModel


class Ready(ViewModel):
    """Whether the server can work, and what of it is there."""

    ready: bool
    database: bool
    migrations: bool
    disk: bool
