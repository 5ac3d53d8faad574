"""Commands that set the server up."""
