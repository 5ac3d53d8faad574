"""Air, fuels, combustion: arithmetic in SI, each function with its range and source."""
