"""One module per subject: what is wrong, and what lifts it."""
