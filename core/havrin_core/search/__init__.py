"""Which part is it, and what to test next: fault modes, predicted pictures, Bayes, information per minute."""
