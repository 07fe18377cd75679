# Colours of invented reflectances at 10 nm, by the tables of python3-colormath (CIE 1931, D65): the yardstick of
# tests/paint/colour_test.cpp. One line each: kind, two parameters, X, Y, Z with the white's Y at 1.
import math

from colormath.spectral_constants import REFERENCE_ILLUM_D65 as light
from colormath.spectral_constants import STDOBSERV_X2, STDOBSERV_Y2, STDOBSERV_Z2

wavelengths = range(340, 831, 10)
white = sum(l * y for l, y in zip(light, STDOBSERV_Y2))


def reflectance(kind, a, b, nm):
    if kind == "edge":  # dark below, bright above
        return 0.05 + 0.8 / (1 + math.exp(-(nm - a) / b))
    if kind == "fall":
        return 0.05 + 0.8 / (1 + math.exp((nm - a) / b))
    return 0.06 + 0.6 * math.exp(-(((nm - a) / b) ** 2))  # a bump


for kind, a, b in [(k, a, b) for k in ("edge", "fall", "bump") for a in range(440, 661, 20) for b in (18, 30, 45)]:
    sums = [
        sum(l * c * reflectance(kind, a, b, nm) for nm, l, c in zip(wavelengths, light, observer)) / white
        for observer in (STDOBSERV_X2, STDOBSERV_Y2, STDOBSERV_Z2)
    ]
    print(kind, a, b, *("%.6f" % s for s in sums))
