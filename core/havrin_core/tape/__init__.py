"""The tape of a visit: typed entries, corrections, the bundle."""
