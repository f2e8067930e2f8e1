/** Words that every chart says, and those of the day's light. */
export const charts = {
  'chart.keys': 'Arrow keys go from mark to mark.',
  'chart.figures': 'The figures as a table',
  'picture.column-verdict': 'Verdict',
  'sun.title': 'Light and warmth of the day',
  'sun.about': '{count|one:# reading|other:# readings} in {light}, cells at {warmth}',
  'sun.from-to': '{least} to {to}',
  'sun.point': '{time}, {what}: {light}, cells at {warmth}, {verdict}',
  'sun.column-time': 'Time',
  'sun.column-test': 'Test',
  'sun.column-light': 'Light',
  'sun.column-warmth': 'Cells',
} as const
