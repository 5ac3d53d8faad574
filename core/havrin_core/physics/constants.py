"""Constants of nature and of air; one table, each with unit and source.

Sources: CODATA 2018 (gas constant); docs/formulas.md section 1 (air as O2 20.946 %, Ar 0.934 %, N2 78.120 %, the remainder as N2);
heats at 25 degC from the NASA polynomials in species.py.
"""

GAS_CONSTANT_J_MOL_K = 8.31446261815324
STANDARD_PRESSURE_PA = 101_325.0
ICE_POINT_K = 273.15
HEATING_VALUE_REFERENCE_K = 298.15  # 25 degC
AIR_O2 = 0.20946  # mole fraction of dry air; the one figure used everywhere
AIR_AR = 0.00934
AIR_N2 = 0.78120
AIR_INERT = AIR_AR + AIR_N2
O2_AMBIENT_PCT = 100 * AIR_O2
O2_AMBIENT_ROUNDED_PCT = 20.9  # what codes and many handhelds use
CO_HEATING_VALUE_J_MOL = 282_978.0  # CO + 1/2 O2 -> CO2 at 25 degC
WATER_LATENT_25C_J_MOL = 44_003.7  # vapour to liquid at 25 degC
