"""``./havrin batch``: JSON lines in, JSON lines out, over the core alone. docs/batch.md is its page."""
