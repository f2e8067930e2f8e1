/** Questions of whoever checks, and what is answered to them, beside the test that they are about. */
export const asked = {
  'asked.by': '{who} asks ({day}): {text}',
  'asked.answered': '{who} answered: {text}',
  'asked.answer': 'Answer',
  'asked.answer-title': 'Answer to {who}',
  'asked.answer-label': 'Your answer',
  'asked.ask': 'Ask back',
  'asked.ask-title': 'Send {step} back with a question',
  'asked.ask-about': 'Whoever tests sees it in Today and at the test. It stands in the record until it is answered.',
  'asked.ask-label': 'Your question',
} as const
