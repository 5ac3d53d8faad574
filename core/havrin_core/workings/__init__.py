"""What follows from the readings of a path: computed figures, each with its why and its uncertainty."""
