"""What the calls about captures, logs and photos take and say."""
