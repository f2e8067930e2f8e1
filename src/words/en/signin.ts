/** Signing in, and the first account of a company. */
export const signin = {
  'signin.about': 'What each string should read now, the tests in their order, and the record that proves it.',
  'signin.demo': 'Demo company: one tap signs you in',
  'signin.email': 'E-mail',
  'signin.password': 'Password',
  'signin.in': 'Sign in',
  'signin.no-reception': 'The office cannot be reached. Sign in once where there is reception.',
  'first.about': 'Nobody is in this company yet. The terminal in which Upstand was started shows a code.',
  'first.code': 'Code from the terminal',
  'first.company': 'Company',
  'first.name': 'Your name',
  'first.email': 'E-mail',
  'first.password': 'Password, 10 characters or more',
  'first.begin': 'Begin',
} as const
