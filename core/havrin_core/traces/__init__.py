"""Logs and captures over time: layout of a log file, series, steady windows, light-off. Uses numpy."""
