"""A firm's choice among the schools of practice."""
