"""Every sentence that people read."""
