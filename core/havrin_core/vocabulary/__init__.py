"""What can be said of a unit: parts, conditions, actions, measurands, devices. One declaration a thing."""
