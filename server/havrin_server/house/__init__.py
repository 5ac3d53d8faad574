"""House rules: read, tried on the visits that were, kept."""
