"""Combustion from a flue sample: balance, CO figures, losses, efficiency, doubts, whys."""
