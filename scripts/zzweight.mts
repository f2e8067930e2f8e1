import { gzipSync } from 'node:zlib'
import { openBrowser, pageOf } from '../tests/support/browser'
import { screens, showScreen } from '../tests/support/screens'
const browser = await openBrowser()
for (const name of ['Run, to be read', 'Day']) {
  const one = screens.find((s) => s.name === name)!
  const page = await pageOf(browser, 'tester', '/')
  await showScreen(page, one.path, one.says)
  await new Promise((r) => setTimeout(r, 1500))
  await page.reload()
  await new Promise((r) => setTimeout(r, 2500))
  const urls = await page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .map((r) => r.name)
      .filter((n) => /\.js(\?|$)/.test(n)),
  )
  let sum = 0
  const rows: [number, string][] = []
  for (const u of new Set(urls)) {
    const b = Buffer.from(await (await fetch(u)).arrayBuffer())
    const z = gzipSync(b).length
    sum += z
    rows.push([z, u.split('/').pop()!])
  }
  console.log(name, (sum / 1000).toFixed(1), rows.length)
  await page.close()
}
await browser.close()
