"""Hunts for a cause whose truth the search does not draw: other severities, moments, histories, unlisted parts, two at once."""
