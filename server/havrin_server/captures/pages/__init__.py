"""Captures and logs as data for the page."""
