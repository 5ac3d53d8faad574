"""Sets Havrin up and runs it. Standard library alone: it works before anything is installed."""
