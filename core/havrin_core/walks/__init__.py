"""Walks: lists of parts in the order in which practitioners work, answered by touch; what they write are ordinary lines."""
