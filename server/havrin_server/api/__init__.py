"""The HTTP interface: parse, call one service or query, serialise."""

from havrin_server.api.interface import api

__all__ = ["api"]
