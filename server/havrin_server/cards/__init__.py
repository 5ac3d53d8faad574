"""What a firm keeps of its own: the card of each site, contact, unit, part, instrument, person, and of the firm itself."""
