import { demoId } from './instruments'

/** Who signs in by one tap in a demo company. */
export const demoPeople = [
  { id: demoId(1), name: 'Tam Brackley', email: 'tam@demo.invalid', role: 'tester' },
  { id: demoId(2), name: 'Isolde Marrow', email: 'isolde@demo.invalid', role: 'supervisor' },
  { id: demoId(3), name: 'Ness Orchard', email: 'ness@demo.invalid', role: 'viewer' },
] as const
