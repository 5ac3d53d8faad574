"""The calls about visits."""
