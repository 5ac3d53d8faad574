"""Units, parsing of typed quantities, display, and propagation of uncertainty."""
