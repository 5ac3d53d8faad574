"""Sites and the units that stand there."""
