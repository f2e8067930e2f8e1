import { openBrowser, pageOf } from '../tests/support/browser'
const browser = await openBrowser()
const page = await pageOf(browser, 'tester', '/job#de300000-0000-7000-8000-000000000390/run')
const wait = (ms: number) => new Promise((r) => setTimeout(r, ms))
const keys = async (...list: string[]) => { for (const k of list) { await page.keyboard.press(k as never); await wait(600) } }
const shot = (n: string) => page.screenshot({ path: `/tmp/w${n}.png` as never })
const tick = async () => { await page.evaluate(() => document.querySelectorAll<HTMLInputElement>('.chk input[type=checkbox]:not(:checked)').forEach((o) => o.click())); await wait(300) }
const title = async () => page.evaluate(() => document.querySelector('#bench-title')?.textContent + ' | ' + document.querySelector('.verdict')?.textContent + ' | ' + (document.querySelector('[data-testid=seen]')?.textContent ?? '')+ ' | ' + document.querySelector('.acts')?.textContent + ' | ' + (document.querySelector('.bench .said.bad')?.textContent ?? ''))
await wait(2500)
let n = 20
for (let k = 0; k < 60; k++) {
  await tick()
  const t = await title()
  const seen = t.split(' | ')[2]!
  console.log(t)
  const act = t.split(' | ')[3]!
  if (act.startsWith('Keep') || act.startsWith('Press')) { await keys('Enter'); await wait(900) }
  else if (act.startsWith('Next')) { await shot(String(n++)); await keys('Enter'); await wait(700) }
  else if (seen.includes('Waiting')) await keys('2')
  else if (seen.includes('Charging')) await keys('3')
  else await keys('1')
}
await shot('x')
await browser.close()
