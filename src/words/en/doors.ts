/** What only the doors of the office answer: what, where, why, and what to do. */
export const doors = {
  'door.sign-in-slow':
    'Too many wrong passwords from here. Try again in {minutes|one:# minute|other:# minutes}, or on a device where you signed in before.',
  'door.email-known': 'Somebody signs in as {email} already. Give them a new password there, or take another address.',
  'door.code-unknown': 'This code is none, was used, or has run out. Ask your supervisor for another.',
  'door.person-disabled': '{name} was signed out for good. A supervisor can let them in again.',
  'door.last-supervisor': '{name} is the only supervisor. Make somebody else one first.',
  'door.work-busy': 'Too much is being drawn and sealed at this moment. Try again in a minute.',
  'door.work-ended':
    'This took more time or memory than one piece of work may. Nothing was changed; tell whoever looks after Upstand.',
  'door.first-locked': 'Too many wrong codes. Stop Upstand in its terminal and start it again: it shows a new code.',
  'door.person-unknown': 'One of the people chosen is not in this company. Load the page again and choose anew.',
  'door.module-type-differs': '{what} is in the library with other figures. A supervisor corrects it in the office.',
  'door.module-type-other': 'These figures are of another module type than the one they were sent to.',
  'door.module-type-retired': 'This module type was taken out of the library. Enter it as a new one.',
  'door.instrument-retired': 'This instrument was taken out of the kit. Enter it as a new one.',
  'door.instrument-in-use':
    'Instrument {tag} was heard in job {number} a moment ago. Ask whoever works there, or a supervisor, to bring it here.',
  'door.another-person':
    '{name} is signed in here now. What you entered stays on this device and goes when you sign in again.',
  'door.sign-in-first': 'Sign in first.',
  'door.no-right': 'You have no right to do this here. Ask a supervisor.',
  'door.not-found': 'There is no such thing here, or you have no right to see it.',
  'door.bad-json': 'What was sent is not JSON. Send one JSON object.',
  'door.too-large': 'That is larger than this door takes ({limit} kB). Send it in smaller pieces.',
  'door.bad-shape': 'What was sent is not as it must be: {where}: {why}.',
  'door.wrong-origin': 'This request comes from another site and was not carried out.',
  'door.database-full':
    'The disk of the office is full: nothing was kept. What is on the device stays there and is sent again once there is room.',
  'door.database-away':
    'The office’s database does not answer at this moment, and nothing was lost: what you entered stays on this device.',
  'door.not-demo': 'One-tap sign-in exists only in the demo, on this machine.',
  'door.first-code': 'That is not the code which the terminal shows. Type it again.',
  'door.first-done': 'This company already has its first person. Sign in with e-mail and password.',
  'door.standin-key': 'A simulated instrument needs no key: it sends by itself.',
  'door.no-instrument': 'That instrument is not in the kit.',
  'door.feed-token': 'That key is not known or was taken back. Give the instrument a new one in the office.',
  'door.feed-instrument': 'This key belongs to another instrument.',
  'door.feed-unpaired':
    'No job has this instrument, so nobody would see what it sends. Bring it to a job on the bench, then send again.',
  'door.feed-replay': 'This sample was sent before. It was not taken again.',
  'door.feed-time':
    'The sample’s time is more than {minutes|one:# minute|other:# minutes} away from this clock. Set the instrument’s clock.',
  'door.feed-rate': 'More samples than one instrument may send in a minute. Send fewer.',
  'door.regime-not-newer': 'This job is under version {version} already: choose a newer one.',
  'door.regime-unknown': 'There is no such version of a regime. Choose one of the list.',
  'door.regime-unchanged': 'Nothing differs from the regime that was copied. Change a figure or a school first.',
  'door.regime-name-taken': 'Another regime has that name. Choose one of its own.',
  'door.regime-meanwhile': 'Somebody else made a version of it meanwhile. Load the page again, then change that one.',
  'door.limit-out-of-reach': '{what}: {value} is out of reach. It may lie from {from} to {to}.',
  'door.school-unknown': 'There is no such way of doing it: {school}.',
  'door.instrument-tag': 'Another instrument of the kit has number {tag}. Give it one of its own.',
  'door.seal-key-other':
    'The seal key of this installation is not the one that the company signs with. Put that key’s file back, or let a new key follow: ./upstand seal-key',
  'door.seal-unsigned':
    'Both signatures must stand under what is there now: sign as tested, and as checked, then seal.',
  'door.seal-nothing-new': 'Nothing was added since issue {issue}. It stays as it is.',
  'door.no-issue': 'This job has no sealed issue {issue}.',
  'door.job-number': 'There is already a job {number}. Give this one another number.',
} as const
