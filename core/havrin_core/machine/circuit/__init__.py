"""Control circuits as data: parts between named nodes, their faults, and what a meter reads on them."""
