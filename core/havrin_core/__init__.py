"""Havrin's core: the rules and the arithmetic of the gas heating technician's work.

Packages look downward only: each layer knows only those below it (pyproject.toml holds them). Everything but ``traces`` runs on the standard library alone.
"""

__version__ = "0.2.0"
