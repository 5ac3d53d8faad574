"""Molar enthalpies of the gases in fuel, air and flue, from NASA-7 polynomials.

Coefficients for 200-1000 K (liquid water 273-600 K): B. J. McBride, S. Gordon,
M. A. Reno, NASA TM-4513 (1993) and later additions in the same form.
"""

from havrin_core.physics.constants import GAS_CONSTANT_J_MOL_K

# species: (a1, a2, a3, a4, a5, a6) of h/RT = a1 + a2 T/2 + a3 T2/3 + a4 T3/4 + a5 T4/5 + a6/T
NASA7_COOL: dict[str, tuple[float, float, float, float, float, float]] = {
    "CH4": (5.14987613, -0.0136709788, 4.91800599e-05, -4.84743026e-08, 1.66693956e-11, -10246.6476),
    "C2H6": (4.29142492, -0.0055015427, 5.99438288e-05, -7.08466285e-08, 2.68685771e-11, -11522.2055),
    "C3H8": (4.2110262, 0.00171599803, 7.06183472e-05, -9.19594116e-08, 3.64421372e-11, -14381.2106),
    "C3H6": (3.83464524, 0.00329078405, 5.05228184e-05, -6.66251418e-08, 2.63707585e-11, 753.838295),
    "nC4H10": (6.14746806, 0.000155947389, 9.67913517e-05, -1.2548391e-07, 4.97816555e-11, -17599.4402),
    "iC4H10": (4.45479276, 0.00826057985, 8.29886664e-05, -1.14647642e-07, 4.64570101e-11, -18459.3931),
    "H2": (2.34433112, 0.00798052075, -1.9478151e-05, 2.01572094e-08, -7.37611761e-12, -917.935173),
    "CO2": (2.35677352, 0.00898459677, -7.12356269e-06, 2.45919022e-09, -1.43699548e-13, -48371.9697),
    "CO": (3.57953347, -0.00061035368, 1.01681433e-06, 9.07005884e-10, -9.04424499e-13, -14344.086),
    "H2O": (4.19864056, -0.0020364341, 6.52040211e-06, -5.48797062e-09, 1.77197817e-12, -30293.7267),
    "H2O(L)": (72.5575005, -0.662445402, 0.00256198746, -4.36591923e-06, 2.78178981e-09, -41886.5499),
    "O2": (3.78245636, -0.00299673415, 9.847302e-06, -9.68129508e-09, 3.24372836e-12, -1063.94356),
    "N2": (3.53100528, -0.000123660987, -5.02999437e-07, 2.43530612e-09, -1.40881235e-12, -1046.97628),
    "AR": (2.5, 0.0, 0.0, 0.0, 0.0, -745.375),
}

_ENTHALPY_COEFFICIENTS = {
    name: (a1, a2 / 2, a3 / 3, a4 / 4, a5 / 5, a6) for name, (a1, a2, a3, a4, a5, a6) in NASA7_COOL.items()
}


def enthalpy_j_mol(species: str, temp_k: float) -> float:
    """Return the molar enthalpy of ``species`` at ``temp_k`` (200-1000 K), formation included.

    >>> round(enthalpy_j_mol("CO2", 298.15) / 1000, 1)
    -393.5
    """
    b1, b2, b3, b4, b5, b6 = _ENTHALPY_COEFFICIENTS[species]
    series = ((((b5 * temp_k + b4) * temp_k + b3) * temp_k + b2) * temp_k + b1) * temp_k + b6
    return GAS_CONSTANT_J_MOL_K * series


def mixture_sensible_j(amounts: dict[str, float], hot_k: float, cold_k: float) -> float:
    """Return the heat that ``amounts`` (mol of each species) give up from ``hot_k`` to ``cold_k``, in J."""
    c1 = c2 = c3 = c4 = c5 = 0.0
    for species, mol in amounts.items():
        b1, b2, b3, b4, b5, _ = _ENTHALPY_COEFFICIENTS[species]
        c1 += mol * b1
        c2 += mol * b2
        c3 += mol * b3
        c4 += mol * b4
        c5 += mol * b5
    hot = ((((c5 * hot_k + c4) * hot_k + c3) * hot_k + c2) * hot_k + c1) * hot_k
    cold = ((((c5 * cold_k + c4) * cold_k + c3) * cold_k + c2) * cold_k + c1) * cold_k
    return GAS_CONSTANT_J_MOL_K * (hot - cold)
