import { faults, trial } from '../bench/causeTrials'
const n = Number(process.argv[2] ?? 20)
let t0 = performance.now(), count = 0
for (const fault of faults) for (const light of [400, 600, 800, 1000]) {
  let first = 0, three = 0, tell = 0, told = 0, falseSound = 0
  const wrong: string[] = []
  for (let k = 0; k < n; k++) {
    const { explained: e } = trial(fault, light, k + 1000 * light)
    count++
    const at = e.ranked.findIndex((r) => r.id === fault)
    if (fault !== 'sound' && e.isSound) falseSound++
    if (e.canTell && !e.isSound) { tell++; if (at === 0) first++; if (at < 3) three++ ; if (at !== 0) wrong.push(e.ranked[0].id + JSON.stringify(e.ranked[0].figures, (q, v) => typeof v === 'number' ? Math.round(v * 100) / 100 : v) + e.ahead_sigma.toFixed(1)) }
    if (fault === 'sound' && !e.isSound) wrong.push(e.ranked[0].id + ' ' + e.ranked.find(r => r.id==='sound')!.behind_sigma.toFixed(1))
  }
  console.log(fault.padEnd(18), light, `tells ${tell}/${n} first ${first} three ${three} saysSound ${falseSound}`, wrong.slice(0, 6).join('; '))
}
console.log(((performance.now() - t0) / count).toFixed(1), 'ms each')
