"""Another way to the same figures: De Soto's five conditions solved by Newton's method on all five unknowns at once in
50-digit arithmetic, and the single-diode equation through the Lambert W function, both with mpmath.

The application solves by nested one-dimensional roots in double precision and through the diode voltage, so the two
share neither method nor code. Run: python3 single_diode_mpmath.py > ../data/singleDiode.json (Debian: python3-mpmath).

Formulas: De Soto, Klein, Beckman, Solar Energy 80 (2006); Lambert W form: Jain, Kapoor, Solar Energy Materials and
Solar Cells 81 (2004). Both from memory. The data plates are invented.
"""
import json
from mpmath import mp, mpf, exp, log, lambertw, findroot, matrix

mp.dps = 50
K = mpf('1.380649e-23') / mpf('1.602176634e-19')
T0 = mpf('298.15')

PLATES = [
    # pmax, voc, isc, vmp, imp, alpha, beta, gamma, cells
    dict(pmax_W=300, voc_V=39.4, isc_A=9.97, vmp_V=32.6, imp_A=9.21, alpha_pctPerK=0.05, beta_pctPerK=-0.29, gamma_pctPerK=-0.38, cellsInSeries=60),
    dict(pmax_W=410, voc_V=37.5, isc_A=13.9, vmp_V=31.5, imp_A=13.02, alpha_pctPerK=0.045, beta_pctPerK=-0.25, gamma_pctPerK=-0.34, cellsInSeries=54),
    dict(pmax_W=245, voc_V=36.85, isc_A=8.8, vmp_V=30, imp_A=8.17, alpha_pctPerK=0.05, beta_pctPerK=-0.34, gamma_pctPerK=-0.43, cellsInSeries=60),
    dict(pmax_W=550, voc_V=49.8, isc_A=13.98, vmp_V=41.9, imp_A=13.13, alpha_pctPerK=0.045, beta_pctPerK=-0.275, gamma_pctPerK=-0.35, cellsInSeries=72),
]
CONDITIONS = [(1000, 25), (742, '43.6'), (200, 25), (100, 10), (1100, 65)]


def eg(dt):
    return mpf('1.121') * (1 - mpf('0.0002677') * dt)


def i0_factor(t_c):
    t = mpf(t_c) + mpf('273.15')
    return (t / T0) ** 3 * exp(eg(0) / (K * T0) - eg(mpf(t_c) - 25) / (K * t))


def fit(p):
    voc, isc, vmp, imp = (mpf(str(p[k])) for k in ('voc_V', 'isc_A', 'vmp_V', 'imp_A'))
    alpha = mpf(str(p['alpha_pctPerK'])) / 100 * isc
    beta = mpf(str(p['beta_pctPerK'])) / 100

    def equations(il, log_i0, rs, gsh, a):
        i0 = exp(log_i0)
        g = i0 / a * exp((vmp + imp * rs) / a) + gsh
        a2 = a * (T0 + 2) / T0
        voc2 = voc * (1 + 2 * beta)
        return [
            il - i0 * (exp(isc * rs / a) - 1) - gsh * isc * rs - isc,
            il - i0 * (exp(voc / a) - 1) - gsh * voc,
            il - i0 * (exp((vmp + imp * rs) / a) - 1) - gsh * (vmp + imp * rs) - imp,
            imp - vmp * g / (1 + rs * g),
            il + 2 * alpha - i0 * i0_factor(27) * (exp(voc2 / a2) - 1) - gsh * voc2,
        ]

    a0 = mpf('0.97') * p['cellsInSeries'] * K * T0
    rs0 = (voc - vmp) / imp / 3
    start = [isc, log(isc) - voc / a0, rs0, mpf(1) / 120, a0]
    il, li0, rs, gsh, a = findroot(equations, start, tol=mpf(10) ** -40, maxsteps=200)
    return dict(il=il, i0=exp(li0), rs=rs, rsh=1 / gsh, a=a, alpha=alpha)


def at(m, g, t):
    s = mpf(g) / 1000
    t = mpf(t)
    return dict(il=s * (m['il'] + m['alpha'] * (t - 25)), i0=m['i0'] * i0_factor(t), rs=m['rs'], rsh=m['rsh'] / s,
                a=m['a'] * (t + mpf('273.15')) / T0)


def current(c, v):
    """I(V) by Lambert W."""
    rs, rsh, a = c['rs'], c['rsh'], c['a']
    arg = rs * c['i0'] * rsh / (a * (rs + rsh)) * exp(rsh * (rs * (c['il'] + c['i0']) + v) / (a * (rs + rsh)))
    return (rsh * (c['il'] + c['i0']) - v) / (rs + rsh) - a / rs * lambertw(arg).real


def voc_of(c):
    """V(I = 0) by Lambert W."""
    arg = c['i0'] * c['rsh'] / c['a'] * exp(c['rsh'] * (c['il'] + c['i0']) / c['a'])
    return c['rsh'] * (c['il'] + c['i0']) - c['a'] * lambertw(arg).real


def mpp(c, guess):
    v = findroot(lambda x: mp.diff(lambda y: y * current(c, y), x), guess)
    return v, current(c, v)


def num(x):
    return float(x)


out = []
for plate in PLATES:
    m = fit(plate)
    points = []
    for g, t in CONDITIONS:
        c = at(m, g, t)
        voc = voc_of(c)
        vmp, imp = mpp(c, voc * mpf('0.8'))
        vs = [voc * k / 10 for k in range(0, 12)]
        points.append(dict(irradiance_Wm2=g, cellTemperature_C=float(t), voc_V=num(voc), isc_A=num(current(c, mpf(0))),
                           vmp_V=num(vmp), imp_A=num(imp), pmax_W=num(vmp * imp),
                           voltages_V=[num(v) for v in vs], currents_A=[num(current(c, mpf(num(v)))) for v in vs]))
    out.append(dict(module=plate, fit=dict(photocurrent_A=num(m['il']), saturationCurrent_A=num(m['i0']),
                                           seriesResistance_ohm=num(m['rs']), shuntResistance_ohm=num(m['rsh']),
                                           modifiedIdeality_V=num(m['a'])), points=points))
print(json.dumps(out, indent=1))
