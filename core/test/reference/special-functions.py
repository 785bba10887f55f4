"""Values of special functions in 60-digit arithmetic (python3-mpmath), by series that share nothing with core/src/numeric.

    python3 special-functions.py > specialFunctions.json
"""
import json
import random

from mpmath import binomial, digamma, exp, gammainc, inf, loggamma, log, mp, mpf, nstr, pi, psi, sqrt, erf, erfc, atan, tan

mp.dps = 60
random.seed(20261123)
rows = []


def add(function, args, *values):
    rows.append({"function": function, "args": args, "values": [float(nstr(v, 20)) for v in values]})


def incomplete_beta(a, b, x, y):
    """x^a y^b/(a B(a, b)) times 2F1(a + b, 1; a + 1; x), all of whose terms are positive; None when it is too long."""
    term = total = mpf(1)
    for n in range(4000):
        term *= (a + b + n) / (a + 1 + n) * x
        total += term
        if term < total * mpf(10) ** -40:
            lead = a * log(x) + b * log(y) + loggamma(a + b) - loggamma(a + 1) - loggamma(b)
            return exp(lead) * total
    return None


for _ in range(60):
    x = random.choice([random.uniform(0.01, 3), 10 ** random.uniform(-9, 9), 1 + random.gauss(0, 0.01), 2 + random.gauss(0, 0.01)])
    add("logGamma", [x], loggamma(mpf(x)))
    add("digamma", [x], digamma(mpf(x)))
    add("trigamma", [x], psi(1, mpf(x)))
    z = random.choice([random.gauss(0, 1), random.uniform(-5, 26), 10 ** random.uniform(-8, 0)])
    add("erf", [z], erf(mpf(z)), erfc(mpf(z)))
    add("atan", [z], atan(mpf(z)))
    t = random.uniform(0, 0.785398)
    add("tan", [t], tan(mpf(t)))

while sum(row["function"] == "gamma" for row in rows) < 120:
    a = random.choice([10 ** random.uniform(-3, 2), 10 ** random.uniform(2, 6), random.uniform(15, 40)])
    x = random.choice([a + random.gauss(0, 3) * a**0.5, a + random.uniform(-30, 30) * a**0.5, a * 10 ** random.uniform(-5, 1)])
    if not 0 < x:
        continue
    mp.dps = 90
    try:
        p, q = gammainc(mpf(a), 0, mpf(x), regularized=True), gammainc(mpf(a), mpf(x), inf, regularized=True)
    except Exception:  # the library gives up on some; others are drawn
        continue
    finally:
        mp.dps = 60
    if min(p, q) > mpf(10) ** -290:
        add("gamma", [a, x], p, q)

while sum(row["function"] == "beta" for row in rows) < 120:
    spread = random.choice([(-3, 1), (0, 3), (2, 5)])
    a, b = 10 ** random.uniform(*spread), 10 ** random.uniform(*random.choice([spread, (-1, 2)]))
    mean = a / (a + b)
    sd = (a * b / (a + b) ** 2 / (a + b + 1)) ** 0.5
    x = random.choice([mean + random.gauss(0, 2) * sd, mean + random.gauss(0, 8) * sd, random.random()])
    if not 0 < x < 0.5:
        continue
    X = mpf(x)
    p, q = incomplete_beta(mpf(a), mpf(b), X, 1 - X), incomplete_beta(mpf(b), mpf(a), 1 - X, X)
    if p is None and q is None:
        continue
    p, q = (1 - q if p is None else p), (1 - p if q is None else q)
    if min(p, q) > mpf(10) ** -290:
        add("beta", [a, b, x], p, q)



def family(name, parameters, x, density, cumulative, survival):
    """Families that distributions.json does not hold, from their defining formulas."""
    values = [float(nstr(v, 20)) for v in (density, cumulative, survival)]
    rows.append({"function": "family", "family": name, "parameters": parameters, "x": x, "values": values})


for z in [-40, -6, -1.5, -0.3, 0, 0.01, 0.7, 2, 9, 300]:
    x = 1.25 + 0.5 * z
    Z = (mpf(x) - mpf(1.25)) / mpf(0.5)
    tail = exp(-abs(Z)) / 2
    family("laplace", {"location": 1.25, "scale": 0.5}, x, tail / mpf(0.5), tail if Z < 0 else 1 - tail, 1 - tail if Z < 0 else tail)
    lower, upper = mpf(1) / 2 + atan(Z) / pi, mpf(1) / 2 - atan(Z) / pi
    family("cauchy", {"location": 1.25, "scale": 0.5}, x, 1 / (pi * mpf(0.5) * (1 + Z**2)), lower, upper)
for x in [1e-9, 0.01, 0.3, 1, 2.5, 7, 20]:
    X, s = mpf(x), mpf(0.75)
    u = X / s
    family("rayleigh", {"scale": 0.75}, x, u / s * exp(-u * u / 2), 1 - exp(-u * u / 2), exp(-u * u / 2))
    family("half-normal", {"scale": 0.75}, x, sqrt(2 / pi) / s * exp(-u * u / 2), erf(u / sqrt(mpf(2))), erfc(u / sqrt(mpf(2))))
    w = exp((log(X) - mpf(0.5)) / mpf(0.125))
    family("log-logistic", {"logLocation": 0.5, "logScale": 0.125}, x, w / (mpf(0.125) * X * (1 + w) ** 2), w / (1 + w), 1 / (1 + w))
for N, K, n in [(200, 10, 25), (5000, 1200, 300)]:
    total = binomial(N, n)
    mass = [binomial(K, k) * binomial(N - K, n - k) / total for k in range(min(K, n) + 1)]
    for k in sorted({0, 1, 3, len(mass) // 4, len(mass) // 2, len(mass) - 2}):
        parameters = {"population": N, "successes": K, "draws": n}
        family("hypergeometric", parameters, k, mass[k], sum(mass[: k + 1]), sum(mass[k + 1 :]))
for k in [0, 1, 7, 400]:
    p = mpf(0.125)
    family("geometric", {"probability": 0.125}, k, p * (1 - p) ** k, 1 - (1 - p) ** (k + 1), (1 - p) ** (k + 1))

print(json.dumps(rows))
