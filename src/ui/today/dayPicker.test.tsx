// @vitest-environment jsdom
import { describe, expect, it } from 'vitest'
import { inDom } from '../testing/inDom'
import { DayPicker } from './PlanDialog'

const { draw, find, type } = inDom()
const shown = (): string => find<HTMLInputElement>('#day').value

describe('a day that is typed', () => {
  const picker = () => <DayPicker id="day" value="2026-12-01" onValue={() => undefined} mustBe />

  it('stays as it is typed when the page around it is drawn again', async () => {
    await draw(picker())
    expect(shown()).toBe('1 Dec 2026')
    find('#day').focus()
    await type('#day', '21 Jun 2027')
    // The clock of the page goes on, and the office is asked.
    await draw(picker())
    await draw(picker())
    expect(shown()).toBe('21 Jun 2027')
  })
})
