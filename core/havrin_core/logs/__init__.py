"""Logs as instruments, phones and spreadsheets export them: what they say, and what has to be asked before it counts."""
