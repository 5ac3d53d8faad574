"""Long work: done by a process of its own from a queue in the database, with progress, and stopped when asked to."""
