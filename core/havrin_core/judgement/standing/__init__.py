"""The standing: may this be left running? Pure: unit, house rules and tape in, assessment out."""
