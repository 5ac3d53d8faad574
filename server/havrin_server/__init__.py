"""The server: stores tapes, checks rights, asks the core."""
