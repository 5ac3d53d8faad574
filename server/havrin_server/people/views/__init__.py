"""Calls about people: their session, what is their own, who belongs to the firm, and the audit log."""
