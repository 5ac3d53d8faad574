"""The record of a unit, a site side by side, what a link shows."""
