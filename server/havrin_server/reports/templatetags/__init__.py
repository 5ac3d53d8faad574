"""Filters of the papers."""
