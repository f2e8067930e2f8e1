"""Another way to the same figures: strings of unlike cell groups as circuits, solved by a general circuit simulator
(ngspice 39.3 from Debian, reltol 1e-8), which knows nothing of strings: nodes, diodes, resistors, sources.

Run: python3 string_curve_ngspice.py > ../data/stringCurve.json (Debian: ngspice). All cells are invented.
"""
import json
import subprocess
import tempfile
from pathlib import Path

# The simulator's own constants: its thermal voltage at 27 degC makes N of a diode model from an ideality in volts.
VT = 1.38064852e-23 * 300.15 / 1.6021766208e-19
DIODE = {'kind': 'diode', 'saturationCurrent_A': 2e-7, 'slope_V': 0.031}


def group(light=1.0, rs=0.11, rsh=95.0, bypass=DIODE, a=0.54, i0=3.1e-10, il=9.4):
    return {
        'photocurrent_A': il * light, 'saturationCurrent_A': i0, 'modifiedIdeality_V': a,
        'seriesResistance_ohm': rs, 'shuntResistance_ohm': rsh, 'bypass': bypass,
    }


def module(*lights, reversed=False, **rest):
    return {'reversed': reversed, 'groups': [group(light, **rest) for light in lights]}


def string(*modules, rs=0.0):
    return {'seriesResistance_ohm': rs, 'modules': list(modules)}


SHORT = {'kind': 'short', 'resistance_ohm': 0.012}
OPEN = {'kind': 'open'}
CASES = {
    'all alike': [string(*[module(1, 1, 1) for _ in range(4)])],
    'two groups shaded unlike': [string(module(1, 0.42, 1), module(1, 1, 0.71), module(1, 1, 1), rs=0.35)],
    'a bypass failed to a short': [string(module(1, 1, 1), {'reversed': False, 'groups': [group(), group(bypass=SHORT), group()]})],
    'no bypass on a dim group': [string(module(1, 1, 1), {'reversed': False, 'groups': [group(), group(0.6, bypass=OPEN, rsh=22.0), group()]})],
    'a module the wrong way round': [string(module(1, 1, 1), module(1, 1, 1), module(1, 1, 1, reversed=True), module(1, 1, 1))],
    'two strings in parallel, one dim and one with a bad joint': [
        string(*[module(1, 1, 1) for _ in range(3)], rs=1.4),
        string(module(1, 1, 0.3), module(0.85, 0.85, 0.85), module(1, 1, 1)),
    ],
    'a dark group': [string(module(1, 1, 1), module(1, 0, 1))],
}
POINTS = 41


def netlist(strings, most_v):
    lines, models, node = ['string'], {}, 0

    def model(i0, slope):
        key = (i0, slope)
        if key not in models:
            models[key] = f'd{len(models)}'
        return models[key]

    def new():
        nonlocal node
        node += 1
        return f'n{node}'

    for one in strings:
        at = '0'
        for m in one['modules']:
            ends = [at]
            for _ in m['groups']:
                ends.append(new())
            # The groups of a reversed module point the other way along the same wire.
            pairs = list(zip(ends, ends[1:]))
            for minus, plus in [(p, q) if not m['reversed'] else (q, p) for p, q in pairs]:
                g = m['groups'][pairs.index((minus, plus) if not m['reversed'] else (plus, minus))]
                inner = new()
                tag = inner
                lines.append(f'i{tag} {minus} {inner} {g["photocurrent_A"]!r}')
                lines.append(f'd{tag} {inner} {minus} {model(g["saturationCurrent_A"], g["modifiedIdeality_V"])}')
                lines.append(f'rp{tag} {inner} {minus} {g["shuntResistance_ohm"]!r}')
                lines.append(f'rs{tag} {inner} {plus} {g["seriesResistance_ohm"]!r}')
                by = g['bypass']
                if by['kind'] == 'diode':
                    lines.append(f'db{tag} {minus} {plus} {model(by["saturationCurrent_A"], by["slope_V"])}')
                elif by['kind'] == 'short':
                    lines.append(f'rb{tag} {minus} {plus} {by["resistance_ohm"]!r}')
            at = ends[-1]
        lines.append(f'rw{at} {at} out {max(one["seriesResistance_ohm"], 1e-9)!r}')
    lines += [f'.model {name} D(IS={i0!r} N={slope / VT!r})' for (i0, slope), name in models.items()]
    lines += ['vout out 0 0', '.options temp=27 tnom=27 reltol=1e-8 abstol=1e-12 vntol=1e-9 gmin=1e-15 itl1=2000 itl2=2000']
    step = most_v / (POINTS - 1)
    return lines, step


def solve(strings):
    most_v = max(sum((-1 if m['reversed'] else 1) * 0.545 * 24.4 * len(m['groups']) for m in one['modules']) for one in strings)
    lines, step = netlist(strings, most_v)
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / 'out.txt'
        control = ['.control', 'set numdgt=12', 'set wr_singlescale', f'dc vout 0 {most_v!r} {step!r}', f'wrdata {data} i(vout)', '.endc', '.end']
        file = Path(folder) / 'string.cir'
        file.write_text('\n'.join(lines + control) + '\n')
        done = subprocess.run(['ngspice', '-b', str(file)], capture_output=True, text=True)
        if not data.exists():
            raise SystemExit(done.stdout + done.stderr)
        rows = [tuple(map(float, row.split())) for row in data.read_text().split('\n') if row.strip()]
    return [v for v, _ in rows], [i for _, i in rows]


def main():
    out = []
    for name, strings in CASES.items():
        voltages, currents = solve(strings)
        out.append({'name': name, 'strings': strings, 'voltages_V': voltages, 'currents_A': currents})
    print(json.dumps(out, indent=1))


main()
