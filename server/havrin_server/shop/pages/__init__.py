"""The shop's documents as data for the page."""
