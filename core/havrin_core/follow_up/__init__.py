"""What comes after the visit: parts with what goes with them, approvals, return visits and their dates."""
