import { describe, expect, it } from 'vitest'
import { corrected, plateOf, readPlate } from './dataPlate'

const plate = {
  pmax_W: '405',
  voc_V: '37,2',
  isc_A: '13.78 A',
  vmp_V: '31.1',
  imp_A: '13.03',
  cellsInSeries: '54',
  alpha_pctPerK: '0.046 %/K',
  beta_pctPerK: '-0.26',
  gamma_pctPerK: '−0.34 %/°C',
}

describe('a data plate as it is typed', () => {
  it('is read with decimal commas, units and true minus signs', () => {
    expect(readPlate(plate).data).toMatchObject({
      voc_V: 37.2,
      isc_A: 13.78,
      alpha_pctPerK: 0.046,
      gamma_pctPerK: -0.34,
    })
  })

  it('takes coefficients in millivolts, milliamperes and watts', () => {
    const { data } = readPlate({
      ...plate,
      alpha_pctPerK: '6.4 mA/K',
      beta_pctPerK: '-97 mV/K',
      gamma_pctPerK: '-1.38 W/K',
    })
    expect(data!.alpha_pctPerK).toBeCloseTo((100 * 0.0064) / 13.78, 10)
    expect(data!.beta_pctPerK).toBeCloseTo((100 * -0.097) / 37.2, 10)
    expect(data!.gamma_pctPerK).toBeCloseTo((100 * -1.38) / 405, 10)
  })

  it('is typed out again as it was kept, and putting it right keeps what no plate says', () => {
    const before = { ...readPlate({ ...plate, noct_C: '44' }).data!, seriesResistance_ohm: 0.3 }
    expect(readPlate(plateOf(before)).data).toEqual(readPlate({ ...plate, noct_C: '44' }).data)
    const after = corrected(before, readPlate({ ...plate, voc_V: '37.4' }).data!)
    expect([after.voc_V, after.seriesResistance_ohm, after.noct_C]).toEqual([37.4, 0.3, undefined])
  })

  it('names every field that is missing', () => {
    expect(Object.keys(readPlate({ voc_V: '37' }).messages).sort()).toContain('isc_A')
  })

  it('asks about 1,234', () => {
    expect(readPlate({ ...plate, maxSystemVoltage_V: '1,500' }).messages.maxSystemVoltage_V).toContain('1500')
  })

  it.each([
    ['beta_pctPerK', '0.26', 'negative'],
    ['voc_V', 'abc', 'not a figure'],
    ['vmp_V', '38', 'below Voc'],
    ['pmax_W', '405 V', 'something else'],
    ['cellsInSeries', '54.5', 'Look at the figure'],
  ] as const)('refuses %s of %s with a sentence', (key, text, words) => {
    const read = readPlate({ ...plate, [key]: text })
    expect(read.data).toBeNull()
    expect(read.messages[key]).toContain(words)
  })
})
