"""Kinds of units as data files; docs/unit-kinds.md describes their form."""
