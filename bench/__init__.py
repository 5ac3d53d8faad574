"""Speeds and sizes, printed: ./havrin bench."""
