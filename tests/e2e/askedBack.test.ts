// A test goes back to whoever took it with a question, and the answer stands at the test, before signing and in Today.
import type { Browser } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { allSent, openBrowser, openStep, pageOf, pressId, sees } from '../support/browser'
import { base, demo } from '../support/server'

let browser: Browser
beforeAll(async () => {
  browser = await openBrowser()
})
afterAll(() => browser.close())

const QUESTION = 'Was the clamp zeroed before it?'
const ANSWER = 'Yes, with the jaws closed.'

describe('a question back', () => {
  it('is asked at the test, seen in Today, answered at the test, and read before signing', async () => {
    const checker = await pageOf(browser, 'supervisor', `/job#${demo.job.open}/run`)
    await openStep(checker, 'Voltage', 'String 1')
    const at = checker.url()
    await pressId(checker, 'ask-back')
    await checker.waitForSelector('[role=dialog] textarea')
    await checker.type('[role=dialog] textarea', QUESTION)
    await checker.click('[role=dialog] button[type=submit]')
    await sees(checker, QUESTION)
    await allSent(checker)

    const tester = await pageOf(browser, 'tester')
    await tester.waitForSelector('[data-testid=asked-back]')
    await sees(tester, QUESTION)
    await tester.click('[data-testid=asked-back] a')
    await pressId(tester, 'answer')
    await tester.waitForSelector('[role=dialog] textarea')
    await tester.type('[role=dialog] textarea', ANSWER)
    await tester.click('[role=dialog] button[type=submit]')
    await sees(tester, `answered: ${ANSWER}`)
    expect(await tester.$('[data-testid=answer]')).toBeNull()
    // Whoever only tests asks nobody.
    expect(await tester.$('[data-testid=ask-back]')).toBeNull()
    await allSent(tester)
    await tester.goto(base)
    await tester.waitForSelector('.jobrow')
    expect(await tester.$('[data-testid=asked-back]')).toBeNull()

    await checker.goto(base)
    await checker.waitForSelector('.jobrow')
    await checker.goto(at)
    await sees(checker, `answered: ${ANSWER}`)
  })
})
