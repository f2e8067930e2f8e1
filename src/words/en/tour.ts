/** What somebody who opens a job for the first time is told. */
export const tour = {
  'tour.line': 'From the sun to the earth: each station wears the worst of its tests. Choose one to go there.',
  'tour.sheet': 'The tests in their right order. A gate says what has to stand first, and why.',
  'tour.slots': 'Type what the instrument shows; over range is typed with > before it.',
  'tour.verdict':
    'What it means against what it should read now. Beside it: the sum, the reason of the limit, the likeliest cause.',
  'tour.saved': 'Each reading is on this device at once, and goes to the office when there is reception.',
  'tour.next': 'Next',
  'tour.end': 'To work',
  'tour.leave': 'Leave it',
  'tour.at': '{at} of {all}',
} as const
