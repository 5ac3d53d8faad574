"""Between which bounds a value may lie, and whose bounds they are."""
