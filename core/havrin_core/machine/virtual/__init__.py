"""The virtual unit: circuit, control and simple physics run together in time."""
