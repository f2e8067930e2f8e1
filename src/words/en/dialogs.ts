/** Dialogs that come when they are opened: what was mended, a tester's sequence. */
export const dialogs = {
  'remedy.title': 'Mended, {part}',
  'remedy.about':
    'Say what was done. The readings below are taken again, because the mending may have changed them; earlier ones stay readable.',
  'remedy.label': 'What was done?',
  'remedy.again': 'To be done again',
  'remedy.action': 'Mended, test again',
  'sequence.title': 'Sequence of tester {tag} on {part}',
  'sequence.none':
    'Nothing is left here that this tester takes by itself. Set the insulation test up once by hand; from then on the sequence takes it too.',
  'sequence.start': 'Start the sequence',
  'sequence.stopped': 'Stopped at: {what}.',
  'sequence.again': 'Read them again',
  'sequence.keep': 'Keep what was read: {count}',
} as const
