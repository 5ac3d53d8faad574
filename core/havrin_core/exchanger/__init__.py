"""The heat exchanger: what was found where, how much was seen, and how likely a breach is."""
