"""The short lines that technicians type, read into tape entries. docs/shorthand.md is the user's page."""
