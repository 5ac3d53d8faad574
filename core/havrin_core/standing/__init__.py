"""The answer to “may this be left running?”, from rules and tape."""
