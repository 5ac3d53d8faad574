"""Stand-ins for real instruments: programs of their own that speak only to the capture interface."""
