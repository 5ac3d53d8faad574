"""What the calls about visits take and say."""
