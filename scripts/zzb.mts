import { openBrowser, pageOf, sees } from '../tests/support/browser'
import { base, demo, knock } from '../tests/support/server'

const b = await openBrowser()
const page = await pageOf(b, 'tester')
const jobs: any = await knock('tester', '/api/jobs')
const job = { id: demo.job.joinery } as any
console.log(JSON.stringify(jobs.body).slice(0, 600))
if (job) {
  await page.goto(`${base}/job#${job.id}/schedule`)
  await page.waitForSelector('[data-cell="10.zs"] button')
  await page.click('[data-cell="10.zs"] button')
  await page.keyboard.down('Alt')
  await page.keyboard.press('b')
  await page.keyboard.up('Alt')
  await sees(page, 'circuit 10')
  await new Promise((r) => setTimeout(r, 800))
  await page.screenshot({ path: '/tmp/b1.png' })
  await page.keyboard.press('y')
  await page.keyboard.press('p')
  await new Promise((r) => setTimeout(r, 3500))
  await page.screenshot({ path: '/tmp/b2.png' })
  await page.click('[data-testid=besides]').catch((e) => console.log(String(e)))
  await new Promise((r) => setTimeout(r, 800))
  await page.screenshot({ path: '/tmp/b3.png' })
}
await b.close()
