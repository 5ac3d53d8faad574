"""Channels of traces and logs: a quantity, or volts with the two nodes that they are between."""

from havrin_core.vocabulary.measurands import measurand

VOLTS = "volts_across_v"


def volts_between(one: str, other: str) -> str:
    """Return the channel of volts between two nodes.

    >>> volts_between("3", "C")
    'volts_across_v@3-C'
    """
    return f"{VOLTS}@{one}-{other}"


def quantity_of(channel: str) -> str:
    """Return the quantity of a channel: volts carry their nodes behind it, like "volts_across_v@3-C"."""
    return channel.partition("@")[0]


def channel_name(channel: str) -> str:
    """Return a channel as it is said to people. Raises UnknownName."""
    quantity, at, leads = channel.partition("@")
    name = measurand(quantity).name
    return f"Volts {leads.replace('-', '–')}" if at and quantity == VOLTS else name


def leads_of(channel: str) -> tuple[str, str] | None:
    """Return the two nodes of a channel of volts; None for any other channel."""
    _, _, leads = channel.partition("@")
    a, dash, b = leads.partition("-")
    return (a, b) if dash else None
