import fc from 'fast-check'
import { describe, it } from 'vitest'
import { anyDay } from './play'

/** The laws of the core on random plants and days; the bench plays the same many times over. */
describe('whatever is read, in whatever order', () => {
  it('nothing passes that should not, and everything shown agrees', () => {
    fc.assert(anyDay, { numRuns: 500 })
  }, 300_000)
})
