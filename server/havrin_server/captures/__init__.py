"""Logs of analyzers, and photos."""
