"""Densities and both tails of the continuous and counting families in high precision (python3-mpmath), from defining formulas
and positive series that share nothing with core/src, at parameters and places that reach far out.

    python3 tails.py [rows a family, default 12] [seed] > tails.json
"""
import json
import random
import sys
import time

from mpmath import beta, betainc, erfc, exp, expm1, gamma, inf, log, log1p, loggamma, mp, mpf, nstr, pi, sqrt

mp.dps = 60
EACH = int(sys.argv[1]) if len(sys.argv) > 1 else 12
random.seed(int(sys.argv[2]) if len(sys.argv) > 2 else 20261125)
rows = []
LEAST = mpf(10) ** -299
ALMOST = 330  # digits at which 1 − F keeps 30 of a tail of 1e-300


def phi_upper(z):
    return erfc(z / sqrt(mpf(2))) / 2


def gamma_tails(a, x):
    """P by its series of positive terms, Q by the continued fraction (Lentz) above the mean, each else one minus the other."""
    lead = exp(a * log(x) - x - loggamma(a + 1))
    def lower():
        term = total = mpf(1)
        n = a
        while term > total * mpf(10) ** -(mp.dps - 5):
            n += 1
            term *= x / n
            total += term
        return lead * total
    def upper():
        tiny = mpf(10) ** -1000
        b = x + 1 - a
        c = 1 / tiny
        d = 1 / b
        h = d
        for i in range(1, 200000):
            an = -i * (i - a)
            b += 2
            d = 1 / (an * d + b)
            c = b + an / c
            step = c * d
            h *= step
            if abs(step - 1) < mpf(10) ** -(mp.dps - 8):
                return lead * a * h
        raise ArithmeticError
    if x > a + 1:
        q = upper()
        return 1 - q, q
    p = lower()
    return p, 1 - p


def beta_lower(a, b, x, y):
    term = total = mpf(1)
    for n in range(60000):
        term *= (a + b + n) / (a + 1 + n) * x
        total += term
        if term < total * mpf(10) ** -45:
            return exp(a * log(x) + b * log(y) + loggamma(a + b) - loggamma(a + 1) - loggamma(b)) * total
    raise ArithmeticError


def beta_tails(a, b, x, y):
    if (a + b) * x < a:
        p = beta_lower(a, b, x, y)
        return p, 1 - p
    q = beta_lower(b, a, y, x)
    return 1 - q, q


def draw(low, high):
    return 10 ** random.uniform(low, high)


def about(centre, sd, reach=38):
    return random.choice([centre + random.gauss(0, 2) * sd, centre + random.uniform(-reach, reach) * sd, centre * draw(-3, 1)])


def normal(m):
    mean, sd = random.choice([0.0, 1e6, -3.7]), draw(-3, 3)
    x = about(mean, sd)
    z = (m(x) - m(mean)) / m(sd)
    return {"mean": mean, "sd": sd}, x, exp(-z * z / 2) / sqrt(2 * pi) / m(sd), phi_upper(-z), phi_upper(z)


def lognormal(m):
    s, mu, t = draw(-3, 0.8), random.uniform(-5, 8), random.choice([0.0, 0.0, 1.5, 1000.0])
    x = float(t + exp(m(about(mu, s))) if random.random() < 0.9 else t + draw(-3, 3))
    y = m(x) - m(t)
    if y <= 0:
        return None
    z = (log(y) - m(mu)) / m(s)
    return {"logMean": mu, "logSd": s, "threshold": t}, x, exp(-z * z / 2) / sqrt(2 * pi) / m(s) / y, phi_upper(-z), phi_upper(z)


def exponential(m):
    s = draw(-3, 3)
    x = s * draw(-6, 2.8)
    z = m(x) / m(s)
    return {"scale": s}, x, exp(-z) / m(s), -expm1(-z), exp(-z)


def gamma_(m):
    a, s = random.choice([draw(-2, 5), random.uniform(200, 3000)]), draw(-2, 3)
    x = s * about(a, a**0.5)
    if x <= 0:
        return None
    z = m(x) / m(s)
    p, q = gamma_tails(m(a), z)
    return {"shape": a, "scale": s}, x, exp((m(a) - 1) * log(z) - z - loggamma(m(a))) / m(s), p, q


def chi_square(m):
    df = random.choice([draw(-1, 4), float(round(random.uniform(600, 3000)))])
    x = about(df, (2 * df) ** 0.5)
    if x <= 0:
        return None
    p, q = gamma_tails(m(df) / 2, m(x) / 2)
    return {"df": df}, x, exp((m(df) / 2 - 1) * log(m(x) / 2) - m(x) / 2 - loggamma(m(df) / 2)) / 2, p, q


def weibull(m):
    k, s, t = random.choice([draw(-1, 1), draw(1, 3.7)]), draw(-2, 3), random.choice([0.0, 0.0, 10.0])
    x = t + s * random.choice([draw(-1, 2.8) ** (1 / k), draw(-290, 0) ** (1 / k), draw(-2, 2)])
    y = (m(x) - m(t)) / m(s)
    if y <= 0:
        return None
    if m(k) * log(y) > 7:
        return None
    h = exp(m(k) * log(y))
    return {"shape": k, "scale": s, "threshold": t}, x, m(k) * h / y * exp(-h) / m(s), -expm1(-h), exp(-h)


def logistic(m):
    l, s = random.uniform(-20, 20), draw(-3, 2)
    x = l + s * random.choice([random.uniform(-680, 680), random.gauss(0, 2)])
    w = exp(-(m(x) - m(l)) / m(s))
    return {"location": l, "scale": s}, x, w / (1 + w) ** 2 / m(s), 1 / (1 + w), w / (1 + w)


def log_logistic(m):
    l, s, t = random.uniform(-5, 5), draw(-2.5, 0), random.choice([0.0, 3.0])
    x = float(t + exp(m(l) + m(s) * random.choice([random.uniform(-680, 680), random.gauss(0, 2)])))
    y = m(x) - m(t)
    if y <= 0:
        return None
    w = exp(-(log(y) - m(l)) / m(s))
    return {"logLocation": l, "logScale": s, "threshold": t}, x, w / (1 + w) ** 2 / m(s) / y, 1 / (1 + w), w / (1 + w)


def largest(m):
    l, s = random.uniform(-20, 20), draw(-3, 2)
    x = l + s * random.choice([random.uniform(-6.5, 680), random.gauss(0, 2)])
    h = exp(-(m(x) - m(l)) / m(s))
    return {"location": l, "scale": s}, x, h * exp(-h) / m(s), exp(-h), -expm1(-h)


def smallest(m):
    l, s = random.uniform(-20, 20), draw(-3, 2)
    x = l + s * random.choice([random.uniform(-680, 6.5), random.gauss(0, 2)])
    h = exp((m(x) - m(l)) / m(s))
    return {"location": l, "scale": s}, x, h * exp(-h) / m(s), -expm1(-h), exp(-h)


def generalized(m):
    l, s, c = random.uniform(-20, 20), draw(-2, 2), random.choice([1, -1]) * draw(-6, 0.3)
    end = l - s / c
    h = random.choice([draw(-290, 2.8), draw(-3, 2)])
    x = float(m(l) + m(s) * expm1(-m(c) * log(m(h))) / m(c)) if random.random() < 0.8 else end + c / abs(c) * s * draw(-14, 0)
    w = 1 + m(c) * (m(x) - m(l)) / m(s)
    if w <= 0:
        return None
    if -log(w) / m(c) > 7:
        return None
    h = exp(-log(w) / m(c))
    return {"location": l, "scale": s, "shape": c}, x, h * exp(-h) / w / m(s), exp(-h), -expm1(-h)


def half_normal(m):
    s = draw(-3, 3)
    x = s * random.choice([draw(-8, 0), random.uniform(0, 37)])
    z = m(x) / m(s)
    return {"scale": s}, x, 2 * exp(-z * z / 2) / sqrt(2 * pi) / m(s), 1 - 2 * phi_upper(z), 2 * phi_upper(z)


def rayleigh(m):
    s = draw(-3, 3)
    x = s * random.choice([draw(-8, 0), random.uniform(0, 37)])
    z = m(x) / m(s)
    return {"scale": s}, x, z * exp(-z * z / 2) / m(s), -expm1(-z * z / 2), exp(-z * z / 2)


def inverse_gaussian(m):
    mu = draw(-2, 3)
    shape = mu * draw(-5, 5)
    x = random.choice([mu * exp(m(random.uniform(-38, 38) * (mu / shape) ** 0.5 if shape > mu else random.uniform(-12, 12))), m(shape) / draw(0, 2.8), mu * draw(-1, 1)])
    x = float(x)
    X, M, L = m(x), m(mu), m(shape)
    g, u = sqrt(L / X) * (X / M - 1), sqrt(L / X) * (X / M + 1)
    second = exp(2 * L / M) * phi_upper(u)
    return {"mean": mu, "shape": shape}, x, sqrt(L / (2 * pi * X**3)) * exp(-g * g / 2), phi_upper(-g) + second, phi_upper(g) - second


def birnbaum(m):
    a, s = draw(-3, 1), draw(-2, 3)
    z = random.choice([random.uniform(-37, 37), random.gauss(0, 2)])
    w = a * abs(z) / 2
    x = s * ((w + (w * w + 1) ** 0.5) ** 2) ** (1 if z > 0 else -1)
    u = m(x) / m(s)
    z = (sqrt(u) - 1 / sqrt(u)) / m(a)
    return {"shape": a, "scale": s}, x, exp(-z * z / 2) / sqrt(2 * pi) * (sqrt(u) + 1 / sqrt(u)) / (2 * m(a) * m(x)), phi_upper(-z), phi_upper(z)


def uniform(m):
    lower, width = random.uniform(-5, 5), draw(-1, 2)
    upper = lower + width
    x = random.choice([lower + width * random.random(), lower + width * draw(-12, 0), upper - width * draw(-12, 0)])
    w = m(upper) - m(lower)
    if not lower < x < upper:
        return None
    return {"lower": lower, "upper": upper}, x, 1 / w, (m(x) - m(lower)) / w, (m(upper) - m(x)) / w


def triangular(m):
    lower, width = random.choice([0.0, 0.0, -3.0]), draw(-1, 2)
    upper = lower + width
    mode = random.choice([lower, upper, lower + width * random.random(), lower + width * draw(-12, 0)])
    x = random.choice([lower + width * random.random(), lower + width * draw(-12, 0), upper - width * draw(-12, 0)])
    if not lower < x < upper:
        return None
    A, C, B, X = m(lower), m(mode), m(upper), m(x)
    if X <= C and C > A:
        p = (X - A) ** 2 / (B - A) / (C - A)
        return {"lower": lower, "mode": mode, "upper": upper}, x, 2 * (X - A) / (B - A) / (C - A), p, 1 - p
    q = (B - X) ** 2 / (B - A) / (B - C)
    return {"lower": lower, "mode": mode, "upper": upper}, x, 2 * (B - X) / (B - A) / (B - C), 1 - q, q


def beta_(m):
    a, b = draw(*random.choice([(-1, 1), (0, 3)])), draw(*random.choice([(-1, 1), (0, 3), (2, 5)]))
    mean = a / (a + b)
    sd = (mean * (1 - mean) / (a + b + 1)) ** 0.5
    x = about(mean, sd)
    if not 1e-300 < x < 1:
        return None
    X = m(x)
    p, q = beta_tails(m(a), m(b), X, 1 - X)
    return {"shape1": a, "shape2": b}, x, exp((m(a) - 1) * log(X) + (m(b) - 1) * log(1 - X) - loggamma(m(a)) - loggamma(m(b)) + loggamma(m(a) + m(b))), p, q


def student(m):
    df, x = draw(-0.7, 4), random.choice([1, -1]) * random.choice([draw(-3, 1.3), draw(0, 14), random.uniform(0, 37)])
    D, X = m(df), m(x)
    r = X * X / D
    tail = beta_tails(D / 2, m(1) / 2, 1 / (1 + r), r / (1 + r))[0] / 2
    f = exp(loggamma((D + 1) / 2) - loggamma(D / 2) - (D + 1) / 2 * log1p(r)) / sqrt(D * pi)
    return {"df": df}, x, f, (1 - tail if x > 0 else tail), (tail if x > 0 else 1 - tail)


def f_(m):
    a, b = draw(-0.5, 3), draw(-0.5, 3)
    x = random.choice([draw(-3, 3), draw(-40, 10), draw(-0.3, 0.3)])
    A, B, X = m(a), m(b), m(x)
    u = A * X / (A * X + B)
    p, q = beta_tails(A / 2, B / 2, u, B / (A * X + B))
    f = exp(A / 2 * log(u) + B / 2 * log(B / (A * X + B)) + loggamma((A + B) / 2) - loggamma(A / 2) - loggamma(B / 2)) / X
    return {"df1": a, "df2": b}, x, f, p, q


def poisson(m):
    mean = random.choice([draw(-1, 5), random.uniform(200, 3000)])
    k = round(about(mean, mean**0.5))
    if k < 0:
        return None
    q, p = gamma_tails(m(k + 1), m(mean))
    return {"mean": mean}, k, exp(k * log(m(mean)) - m(mean) - loggamma(m(k + 1))), p, q


def binomial(m):
    n, p = round(draw(0.5, 7)), random.choice([random.random(), draw(-4, -0.3)])
    k = round(about(n * p, (n * p * (1 - p)) ** 0.5))
    if not 0 <= k < n:
        return None
    P = m(p)
    q, c = beta_tails(m(k + 1), m(n - k), P, 1 - P)
    mass = exp(loggamma(m(n + 1)) - loggamma(m(k + 1)) - loggamma(m(n - k + 1)) + k * log(P) + (n - k) * log(1 - P))
    return {"trials": n, "probability": p}, k, mass, c, q


def negative_binomial(m):
    size, p = draw(-1, 4), random.choice([random.random(), draw(-3, -0.3)])
    mean = size * (1 - p) / p
    k = round(about(mean, (mean / p) ** 0.5))
    if k < 0:
        return None
    P = m(p)
    c, q = beta_tails(m(size), m(k + 1), P, 1 - P)
    mass = exp(loggamma(m(size) + k) - loggamma(m(size)) - loggamma(m(k + 1)) + m(size) * log(P) + k * log(1 - P))
    return {"size": size, "probability": p}, k, mass, c, q


FAMILIES = {
    "normal": normal, "lognormal": lognormal, "exponential": exponential, "gamma": gamma_, "chi-square": chi_square,
    "weibull": weibull, "logistic": logistic, "log-logistic": log_logistic, "largest-extreme-value": largest,
    "smallest-extreme-value": smallest, "generalized-extreme-value": generalized, "half-normal": half_normal,
    "rayleigh": rayleigh, "inverse-gaussian": inverse_gaussian, "birnbaum-saunders": birnbaum, "uniform": uniform,
    "triangular": triangular, "beta": beta_, "student-t": student, "f": f_, "poisson": poisson, "binomial": binomial,
    "negative-binomial": negative_binomial,
}
for name, make in FAMILIES.items():
    found = 0
    began = time.time()
    while found < EACH:
        mp.dps = ALMOST
        try:
            row = make(mpf)
        except (ArithmeticError, OverflowError, ZeroDivisionError, ValueError):
            continue
        if row is None:
            continue
        parameters, x, *values = row
        mp.dps = 60
        if any(v < LEAST or v > mpf(10) ** 300 for v in values):
            continue
        rows.append({"family": name, "parameters": parameters, "x": x, "values": [float(nstr(v, 20)) for v in values]})
        found += 1
    print(name, round(time.time() - began), "s", file=sys.stderr)

print(json.dumps(rows))
