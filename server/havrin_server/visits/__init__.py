"""Visits and their tapes."""
