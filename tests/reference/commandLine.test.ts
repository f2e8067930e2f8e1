import { spawnSync } from 'node:child_process'
import { describe, expect, it } from 'vitest'
import reference from './data/singleDiode.json'

/** The command line to the letter: what goes in and comes out, exit codes, problems. Figures from the other method. */
const root = `${import.meta.dirname}/../..`
const calc = (args: string[], input: unknown = '') => {
  const text = typeof input === 'string' ? input : JSON.stringify(input)
  const { status, stdout, stderr } = spawnSync('./upstand', ['calc', ...args], {
    cwd: root,
    input: text,
    encoding: 'utf8',
    maxBuffer: 1 << 26,
  })
  return {
    status,
    stdout,
    stderr,
    out: stdout ? JSON.parse(stdout.startsWith('{') || stdout.startsWith('[') ? stdout : '{}') : null,
    problem: stderr.startsWith('{') ? JSON.parse(stderr) : null,
  }
}
const one = reference[0]!
const point = one.points[1]!
const near = (value: number, expected: number, relative = 1e-6): void =>
  expect(Math.abs(value / expected - 1)).toBeLessThan(relative)

const names = [
  'pv-expected',
  'desoto-fit',
  'single-diode',
  'refer-to-stc',
  'insulation-dc',
  'earth-fault',
  'ratings',
  'verify-seal',
]

describe('./upstand calc', () => {
  it('lists the calculations', () => {
    const { status, stdout } = calc([])
    expect(status).toBe(0)
    for (const name of names) expect(stdout).toContain(name)
  })

  it.each(names)('prints the JSON Schema of %s', (name) => {
    expect(calc([name, '--schema']).out).toMatchObject({
      type: 'object',
      $schema: expect.stringContaining('json-schema.org'),
    })
  })

  it('gives what an array should read, and the quick rule beside it', () => {
    const input = {
      module: one.module,
      modulesInSeries: 11,
      stringsInParallel: 3,
      irradiance_Wm2: point.irradiance_Wm2,
      cellTemperature_C: point.cellTemperature_C,
    }
    const { out } = calc(['pv-expected'], input)
    near(out.voc_V, 11 * point.voc_V)
    near(out.isc_A, 3 * point.isc_A)
    near(out.vmp_V, 11 * point.vmp_V)
    near(out.imp_A, 3 * point.imp_A)
    near(out.pmax_W, 33 * point.pmax_W)
    near(out.vocQuickRule_V, 11 * 39.4 * (1 - 0.0029 * (43.6 - 25)), 1e-12)
  })

  it('gives the five parameters, and the curve from them', () => {
    const { out: fit } = calc(['desoto-fit'], { module: one.module })
    for (const key of Object.keys(one.fit) as (keyof typeof one.fit)[]) near(fit[key], one.fit[key])
    const stc = one.points[0]!
    const { out } = calc(['single-diode'], { ...one.fit, voltages_V: stc.voltages_V })
    expect(out.currents_A).toHaveLength(stc.voltages_V.length)
    for (const [k, current] of out.currents_A.entries()) expect(current).toBeCloseTo(stc.currents_A[k]!, 6)
    near(out.pmax_W, stc.pmax_W)
  })

  it('refers a reading to standard test conditions', () => {
    const input = {
      module: one.module,
      modulesInSeries: 10,
      quantity: 'voc',
      value: 10 * point.voc_V * 0.98,
      irradiance_Wm2: point.irradiance_Wm2,
      cellTemperature_C: point.cellTemperature_C,
    }
    const { out } = calc(['refer-to-stc'], input)
    near(out.expected, 394)
    near(out.value, 394 * 0.98)
    near(out.difference_pct, -2)
  })

  it('gives an array for an array, in order', () => {
    const cases = reference.map((two) => ({ module: two.module }))
    const { out } = calc(['desoto-fit'], cases)
    expect(out).toHaveLength(cases.length)
    for (const [k, two] of reference.entries()) near(out[k].modifiedIdeality_V, two.fit.modifiedIdeality_V)
  })

  it('takes a byte order mark', () => {
    expect(calc(['desoto-fit'], `\uFEFF${JSON.stringify({ module: one.module })}`).status).toBe(0)
  })

  it.each([
    ['no JSON', 'desoto-fit', '{', []],
    ['nothing', 'desoto-fit', '', []],
    ['an unknown key', 'desoto-fit', { module: one.module, colour: 'red' }, []],
    ['an unknown key inside', 'desoto-fit', { module: { ...one.module, colour: 'red' } }, ['module']],
    ['a missing key', 'desoto-fit', { module: { ...one.module, voc_V: undefined } }, ['module', 'voc_V']],
    [
      'a coefficient of the wrong sign',
      'desoto-fit',
      { module: { ...one.module, beta_pctPerK: 0.29 } },
      ['module', 'beta_pctPerK'],
    ],
    ['Vmp above Voc', 'desoto-fit', { module: { ...one.module, vmp_V: 40 } }, ['module', 'vmp_V']],
    ['no physical solution', 'desoto-fit', { module: { ...one.module, vmp_V: 38.9, imp_A: 9.9 } }, ['module']],
    ['text for a number', 'single-diode', { ...one.fit, voltages_V: ['1'] }, ['voltages_V', 0]],
    ['one bad case of many', 'desoto-fit', [{ module: one.module }, { module: {} }], [1, 'module', 'pmax_W']],
  ] as const)('refuses %s with a problem and exit code 2', (_, name, input, path) => {
    const { status, stdout, problem } = calc([name], input)
    expect(status).toBe(2)
    expect(stdout).toBe('')
    expect(problem.title.length).toBeGreaterThan(5)
    expect(problem.errors[0]).toMatchObject({ path, message: expect.any(String) })
  })

  it('refuses a name or flag that it does not know', () => {
    expect(calc(['toString']).status).toBe(2)
    expect(calc(['desoto-fit', '--fast']).problem.errors[0].message).toContain('--schema')
  })

  it('falls back to the quick rule with the light term, and says so', () => {
    const module = { ...one.module, vmp_V: 38.9, imp_A: 9.9 }
    const { out } = calc(['pv-expected'], {
      module,
      modulesInSeries: 1,
      stringsInParallel: 1,
      irradiance_Wm2: 200,
      cellTemperature_C: 25,
    })
    expect(out.method).toBe('quick-rule-with-light-term')
    expect(out.voc_V).toBeCloseTo(39.4 - 2.729, 2)
  })
})
