"""Ten results of the bench and of preparations, computed a second time.

Nothing here is shared with the program: each result is a plain function of its inputs, differentiated numerically, with every input's
standard uncertainty and degrees of freedom written out by hand. `core/titration/tenResults.test.ts` holds the figures that this prints.

    python3 docs/checks/ten_results.py
"""
from math import erf, exp, gamma, hypot, isinf, lgamma, log, pi, sqrt

INF = float("inf")
M_KHP, U_KHP = 204.2223, None  # u of the molar mass is far below all else and taken from its atoms below
TRI, RECT = 1 / sqrt(6), 1 / sqrt(3)
Z = 1.959963984540054


def molar_mass_u():
    """C8H5KO4: conventional weights, each with the farther end of its interval as rectangular half-width; atoms of one element add linearly."""
    half = {"C": (8, 0.0014), "H": (5, 0.00016), "K": (1, 0.0001), "O": (4, 0.00077)}
    return sqrt(sum((n * a * RECT) ** 2 for n, a in half.values()))


def water(t):
    """Tanaka 2001, kg/m3."""
    return 999.97495 * (1 - (t - 3.983035) ** 2 * (t + 301.797) / (522528.9 * (t + 69.34881)))


def volume_factor(t, ref=20.0):
    return water(t) / water(ref) * (1 + 9.9e-6 * (t - 20))


def t_quantile(p, v):
    """By bisection of the incomplete integral of the density."""
    if isinf(v):
        return Z
    c = exp(lgamma((v + 1) / 2) - lgamma(v / 2)) / sqrt(v * pi)

    def below(x, n=4000):
        h = x / n
        f = lambda y: c * (1 + y * y / v) ** (-(v + 1) / 2)
        return 0.5 + h / 3 * sum((1 if i in (0, n) else 4 if i % 2 else 2) * f(i * h) for i in range(n + 1))

    lo, hi = 0.0, 700.0
    for _ in range(80):
        mid = (lo + hi) / 2
        lo, hi = (mid, hi) if below(mid) < p else (lo, mid)
    return lo


class Model:
    """A function of named inputs (value, u, degrees of freedom, u of what is known and not corrected)."""

    def __init__(self):
        self.inputs = {}
        self.correlations = {}

    def add(self, name, value, u=0.0, dof=INF, uncorrected=0.0):
        self.inputs[name] = (value, u, dof, uncorrected)
        return name

    def evaluate(self, f):
        x = {n: v[0] for n, v in self.inputs.items()}
        y = f(x)
        c, known = {}, {}
        for n, (value, u, _, b) in self.inputs.items():
            h = max(abs(value), 1.0) * 1e-6
            up, down = dict(x), dict(x)
            up[n], down[n] = value + h, value - h
            slope = (f(up) - f(down)) / (2 * h)
            c[n], known[n] = slope * u, slope * b
        cross = sum(2 * r * c[a] * c[b] for (a, b), r in self.correlations.items())
        unknown = sqrt(sum(v * v for v in c.values()) + cross)
        total = hypot(unknown, *known.values())
        below = sum(c[n] ** 4 / self.inputs[n][2] for n in c if not isinf(self.inputs[n][2]))
        dof = unknown ** 4 / below if below else INF
        k = t_quantile(0.975, dof if isinf(dof) else max(1, int(dof + 1e-9)))
        return y, total, k


def mean(v):
    return sum(v) / len(v)


def sd(v):
    m = mean(v)
    return sqrt(sum((x - m) ** 2 for x in v) / (len(v) - 1))


def weighed(titres, mass=0.48, t=20.0, t_read_u=None, corrected=False, air=None, blanks=(), how="inputs", known=None,
            balance=None, burette_cal=None, carried=False):
    """Hydroxide by phthalate: 0.4800 g each, burette of 50 mL, drop of 0.05 mL."""
    m = Model()
    n = len(titres)
    m.add("P", 0.9998, 0.0005 * RECT)
    m.add("M", M_KHP, molar_mass_u())
    u_lin = 0.0002 * RECT * sqrt(2) if balance is None else balance[1] / 2
    m.add("lin", 0.0 if balance is None else balance[0], u_lin)
    m.add("cal", 0.0, 0.05 * TRI if burette_cal is None else burette_cal / 2)
    m.add("shade", 0.0, 0.025 * RECT)
    if corrected:
        m.add("dT", 0.0, t_read_u)
    else:
        m.add("dT", 0.0, 3 / Z, INF, abs(t - 20.0) if carried else 0.0)
    if air is not None:
        m.add("air", air, 0.12 * RECT)
    by_flask = how == "inputs"
    for i, v in enumerate(titres):
        m.add(f"m{i}", mass, sqrt(2) * 0.0001 if by_flask else 0.0)
        m.add(f"V{i}", v, hypot(0.02 * TRI * sqrt(2), 0.025 * RECT) if by_flask else 0.0)
    for j, v in enumerate(blanks):
        m.add(f"B{j}", v, hypot(0.02 * TRI * sqrt(2), 0.025 * RECT))

    slope = None
    if corrected:
        slope = -(log(volume_factor(t + 0.5)) - log(volume_factor(t - 0.5)))

    def f(x):
        factor = volume_factor(t) * (1 - slope * x["dT"]) if corrected else 1 - 2.1e-4 * x["dT"]
        b = (1 - x["air"] / 8000) / (1 - x["air"] / 1636) if air is not None else 1.0
        blank = mean([x[f"B{j}"] + x["shade"] for j in range(len(blanks))]) if blanks else 0.0
        out = []
        for i in range(n):
            volume = (x[f"V{i}"] + x["cal"] + x["shade"] - blank) * factor
            out.append(1000 * (x[f"m{i}"] + x["lin"]) * b * x["P"] / x["M"] / volume)
        return mean(out) * x.get("rep", 1.0)

    if how != "inputs":
        x = {k: v[0] for k, v in m.inputs.items()}
        blank = mean(blanks) if blanks else 0.0
        rel = [1 / (v - blank) for v in titres]
        s = sd(rel) / mean(rel) if n > 1 else 0.0
        if how == "scatter":
            m.add("rep", 1.0, s / sqrt(n), n - 1)
        else:
            s0, v0 = known
            if s0 is None:
                per = [hypot(sqrt(2) * 0.0001 / mass, hypot(0.02 * TRI * sqrt(2), 0.025 * RECT) / v) for v in titres]
                w = [1 / v for v in titres]
                s0 = sqrt(sum((p * q / mean(w)) ** 2 for p, q in zip(per, w)) / n)
            sp = sqrt((v0 * s0 ** 2 + (n - 1) * s ** 2) / (v0 + n - 1))
            m.add("rep", 1.0, sp / sqrt(n), v0 + n - 1)
    return m.evaluate(f)


def thermometer(tolerance=0.3, variation=3.0):
    return hypot(variation / Z, 0.05 * RECT, tolerance * RECT)


CASES = {
    "15 C, corrected": weighed([23.50, 23.51, 23.52], t=15.0, corrected=True, t_read_u=thermometer()),
    "30 C, corrected, in air": weighed([23.50, 23.51, 23.52], t=30.0, corrected=True, t_read_u=thermometer(), air=1.2),
    "25 C, carried, scatter": weighed([23.44, 23.50, 23.56], t=25.0, carried=True, how="scatter"),
    "two blanks, scatter": weighed([23.60, 23.66, 23.72], blanks=(0.10, 0.14), how="scatter"),
    "n = 2, pooled": weighed([23.49, 23.51], how="pooled", known=(None, 8)),
    "n = 3, pooled with six series": weighed([23.48, 23.50, 23.52], how="pooled", known=(0.0008, 14)),
    "balance with a certificate": weighed([23.50, 23.51, 23.52], balance=(0.00048, 0.0004)),
}


def chain():
    """Acid by carbonate made up in a flask, then hydroxide by that acid with the same pipette of 25 mL: both aliquots are its own."""
    # Carbonate solution 0.05012 +- u/k; aliquots of 25 mL; titres of acid near 25 mL; then aliquots of acid, titres of hydroxide.
    pip = 0.03 * TRI
    fill = 0.03 / 3
    read = hypot(0.02 * TRI * sqrt(2), 0.025 * RECT)
    m = Model()
    m.add("c0", 0.05012, 0.05012 * 0.0005)
    m.add("pip", 0.0, pip)
    m.add("cal", 0.0, 0.05 * TRI)
    m.add("shade1", 0.0, 0.025 * RECT)
    m.add("shade2", 0.0, 0.025 * RECT)
    for i in range(3):
        m.add(f"a{i}", 25.0, fill)
        m.add(f"v{i}", 25.06, read)
        m.add(f"b{i}", 25.0, fill)
        m.add(f"w{i}", 24.90, read)

    def f(x):
        acid = mean([2 * x["c0"] * (x[f"a{i}"] + x["pip"]) / (x[f"v{i}"] + x["cal"] + x["shade1"]) for i in range(3)])
        return mean([acid * (x[f"b{i}"] + x["pip"]) / (x[f"w{i}"] + x["cal"] + x["shade2"]) for i in range(3)])

    return m.evaluate(f)


def dilutions():
    """2.0012 mol/L through 10 to 100, 10 to 100, 10 to 250 mL: one pipette thrice, one flask twice."""
    m = Model()
    m.add("c0", 2.0012, 0.0012)
    m.add("v10", 10.0, 0.02 * TRI)
    m.add("f100", 100.0, 0.1 * TRI)
    m.add("f250", 250.0, 0.15 * TRI)
    return m.evaluate(lambda x: x["c0"] * x["v10"] ** 3 / x["f100"] ** 2 / x["f250"])


def back():
    """Chloride: 50 mL of 0.1002 silver in excess, the rest by 0.0998 thiocyanate, of 25 mL."""
    m = Model()
    m.add("ce", 0.1002, 0.1002 * 0.0005)
    m.add("cs", 0.0998, 0.0998 * 0.0005)
    m.add("p50", 0.0, 0.03 * TRI)
    m.add("p25", 0.0, 0.03 * TRI)
    m.add("e", 50.0, 0.01)
    m.add("a", 25.0, 0.01)
    m.add("cal", 0.0, 0.05 * TRI)
    m.add("shade", 0.0, 0.025 * RECT)
    m.add("v", 25.10, hypot(0.02 * TRI * sqrt(2), 0.025 * RECT))
    return m.evaluate(lambda x: (x["ce"] * (x["e"] + x["p50"]) - x["cs"] * (x["v"] + x["cal"] + x["shade"]))
                      / (x["a"] + x["p25"]))


CASES["a chain of two standards"] = chain()
CASES["three dilutions"] = dilutions()
CASES["a back-titration"] = back()

if __name__ == "__main__":
    for name, (value, u, k) in CASES.items():
        print(f"{name:34} {value:.9f} {u:.4e} {k:.4f}")
