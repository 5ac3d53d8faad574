"""Units as data: what can be measured, the kinds, their stations, paths and plates."""
