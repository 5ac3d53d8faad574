"""Papers before they are printed."""

from havrin_server.view_model import ViewModel


class PreviewOut(ViewModel):
    """A paper as one page of HTML, as it would be printed now."""

    html: str
