"""The tape, the limits, the house rules, and the standing that follows from them."""
