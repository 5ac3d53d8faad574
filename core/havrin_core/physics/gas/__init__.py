"""Gas flow and input: orifices, meters, adjustment, tightness, LP vapour pressure."""
