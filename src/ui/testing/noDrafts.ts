import type { DraftShelf } from '../bench/heldDrafts'

const nothing = (): null => null

/** Nothing was begun before, and nothing is held. */
export const noDrafts: DraftShelf = { of: nothing, put: nothing, begun: () => new Set() }
