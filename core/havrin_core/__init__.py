"""Havrin's core: the rules and the arithmetic of the gas heating technician's work.

Packages look downward only: quantities < physics < machine < judgement, with traces
beside machine. Everything but ``traces`` runs on the standard library alone.
"""
