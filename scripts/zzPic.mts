import { openBrowser, pageOf, sees } from '../tests/support/browser'
const [, , out, who, path, ...acts] = process.argv
const browser = await openBrowser()
const page = await pageOf(browser, who as never, path as never)
await page.setViewport({ width: 1280, height: 800 })
await new Promise((r) => setTimeout(r, 2500))
for (const act of acts) {
  const [kind, arg] = [act[0], act.slice(1)]
  if (kind === '#') {
    await (await page.waitForSelector(arg, { timeout: 8000 }))!.click()
  } else if (kind === '=') {
    await page.evaluate((words: string) => {
      const all = [...document.querySelectorAll<HTMLElement>('button, a, [role=tab], summary')]
      ;(
        all.find((o) => o.innerText?.trim().startsWith(words)) ??
        all.find((o) => o.getAttribute('aria-label') === words)
      )?.click()
    }, arg)
  } else if (kind === '@') {
    await page.evaluate((words: string) => {
      const one = document.querySelector('select')!
      const o = [...one.options].find((x) => x.text.includes(words))!
      const set = Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value')!.set!
      set.call(one, o.value)
      one.dispatchEvent(new Event('change', { bubbles: true }))
    }, arg)
  } else if (kind === '^')
    await page.evaluate(
      (y: string) =>
        document.querySelectorAll('*').forEach((o) => {
          if (o.scrollHeight > o.clientHeight + 50) o.scrollTop = Number(y)
        }),
      arg,
    )
  await new Promise((r) => setTimeout(r, 900))
}
await page.screenshot({ path: out as never })
await browser.close()
