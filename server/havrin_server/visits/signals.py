"""What others may want to know of visits: the papers are printed by who listens (reports/apps.py)."""

from django.dispatch import Signal

visit_closed = Signal()  # visit, address: that of the unit's record
visit_amended = Signal()  # amendment
