"""The calls about captures, logs and photos."""
