"""Instruments and what they promise."""
