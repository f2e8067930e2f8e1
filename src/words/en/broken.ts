/** What is said where a screen broke: by itself, so that it needs nothing else to be there. */
export const broken = {
  'broken.title': 'This screen stopped',
  'broken.about': 'Nothing is lost: every entry was kept on this device before it was shown.',
  'broken.again': 'Draw it again',
} as const
