"""Firm and persons with their roles."""
