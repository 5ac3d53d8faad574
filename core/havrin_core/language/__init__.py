"""How much of what technicians say the bar understands: labelled lines, read and held against their labels."""
