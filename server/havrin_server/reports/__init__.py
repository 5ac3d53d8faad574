"""Paper and files that leave the house."""
