"""Numbers as the page shows them: text and unit, marks on a scale, the why of each."""
