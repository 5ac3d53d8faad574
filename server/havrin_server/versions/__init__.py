"""Versions of what visits are judged by: units, models, kinds, circuits, house rules, instruments. Append-only."""
