"""The firm's own circuits."""
