/** What the doors answer: what, where, why, and what to do. */
export const doors = {
  'refused.empty': 'Nothing was entered. Type the figure that the instrument shows.',
  'refused.not-a-number': '“{text}” is not a figure. Type it as shown, such as 369.6 or >999.',
  'refused.two-decimal-signs': '“{text}” has two decimal signs. Type it with one, such as 369.6.',
  'refused.unit-unknown': '“{text}” ends in a unit that is not known here. Type the figure alone, or with {unit:unit}.',
  'refused.unit-of-another-quantity': '“{text}” is in a unit of something else. This slot takes {unit:unit}.',
  'refused.too-long': 'That is longer than any display. Type the figure alone.',
  'refused.slot-unknown': 'This step has no slot of that name.',
  'refused.choice-unknown': 'Choose one of the answers that the step offers.',
  'refused.number-wanted': 'This slot takes a figure.',
  'refused.unit-of-slot': 'This slot takes {unit:unit}; {given:unit} was sent.',
  'refused.negative-dc-voltage':
    'A negative voltage means crossed leads or a reversed string. Record it under polarity, then read the voltage.',
  'refused.negative-dc-current': 'A negative current means the clamp is the wrong way round. Turn it and read again.',
  'refused.irradiance-out-of-reach':
    '{irradiance:0} W/m² cannot fall on a module here: 1 to 1600 can. Read the light again.',
  'refused.temperature-out-of-reach':
    '{temperature:0} °C is no temperature of a module or of the air: −50 to 110 can be. Read it again.',
  'refused.absurd':
    '{read} {unit:unit} cannot come from string {tag}, which should read {expected:1} {unit:unit} now. Look at the figure and its unit, then type it again.',
  'refused.thousand-or-decimal': '“{text}” could be {decimal} or {thousand}. Which one does the instrument show?',
  'refused.no-step': 'There is no test called “{step}”.',
  'refused.no-part': 'This job has no such part. Load the job again.',
  'refused.part-of-another-kind': 'The test “{step}” is not made on that kind of part.',
  'refused.conditions-unusable':
    'The light and temperature of this reading cannot be used: one of them was over range.',
  'refused.note-too-long': 'A note holds at most 2000 characters; this one has {length}. Shorten it.',
  'refused.wrong-job': 'This entry belongs to another job. It was not kept.',
  'refused.wrong-visit': 'This job has no such visit. Load the job again.',
  'refused.shape': 'The entry is not as it must be: {where}: {why}.',
  'refused.void-own': 'Only the author, before signing, or a supervisor can void this entry.',
  'refused.void-target': 'A void cannot be voided. Add a remark instead.',
  'refused.sign-right': 'Your role in this job does not sign “{role}”.',
  'refused.sign-stale':
    'Something was added since you read the record. Look at it again and sign what stands there now.',
  'refused.read-only': 'You may read this job but not write to it. Ask a supervisor for the tester’s role.',
  'refused.conflict': 'Another entry with the same id but other content is kept already. This one stays on the device.',
  'refused.plant-base': 'This part was changed by somebody else meanwhile. Look at it and change it again.',

  'ask.ten-times':
    '{read} {unit:unit} is {ratio:0} times what string {tag} should read ({expected:1}). A decimal point slipped? Keep it?',
  'ask.a-tenth':
    '{read} {unit:unit} is about a tenth of what string {tag} should read ({expected:1}). A decimal point slipped? Keep it?',
  'ask.far-off': '{read} {unit:unit} is {ratio:1} times what string {tag} should read ({expected:1}). Keep it?',

  'door.sign-in-first': 'Sign in first.',
  'door.no-right': 'You have no right to do this here. Ask a supervisor.',
  'door.not-found': 'There is no such thing here, or you have no right to see it.',
  'door.bad-json': 'What was sent is not JSON. Send one JSON object.',
  'door.too-large': 'That is larger than this door takes ({limit} kB). Send it in smaller pieces.',
  'door.bad-shape': 'What was sent is not as it must be: {where}: {why}.',
  'door.wrong-origin': 'This request comes from another site and was not carried out.',
  'door.server': 'Something went wrong here, and nothing was lost: what you entered stays on this device. Try again.',
  'door.bad-credentials': 'That e-mail and password do not belong together. Type them again.',
  'door.not-demo': 'One-tap sign-in exists only in the demo, on this machine.',
  'door.first-code': 'That is not the code which the terminal shows. Type it again.',
  'door.first-done': 'This company already has its first person. Sign in with e-mail and password.',
  'door.feed-token': 'That token is not known or was revoked. Pair the instrument again.',
  'door.feed-instrument': 'This token belongs to another instrument.',
  'door.feed-quantity': 'The instrument of this token does not measure “{quantity}”.',
  'door.feed-unit': '“{quantity}” comes in {unit}; {given} was sent.',
  'door.feed-replay': 'This sample was sent before. It was not taken again.',
  'door.feed-time':
    'The sample’s time is more than {minutes} minutes away from this clock. Set the instrument’s clock.',
  'door.feed-rate': 'More samples than one instrument may send in a minute. Send fewer.',
  'door.regime-unknown': 'There is no such version of a regime. Choose one of the list.',
  'door.regime-unchanged': 'Nothing differs from the regime that was copied. Change a figure or a school first.',
  'door.regime-name-taken': 'Another regime has that name. Choose one of its own.',
  'door.regime-meanwhile': 'Somebody else made a version of it meanwhile. Load the page again, then change that one.',
  'door.limit-out-of-reach': '{what}: {value} is out of reach. It may lie from {from} to {to}.',
  'door.school-unknown': 'There is no such way of doing it: {school}.',
  'door.instrument-tag': 'Another instrument of the kit has number {tag}. Give it one of its own.',
  'door.standin-not-here': 'This simulated instrument has nothing to show here. Type what yours shows.',
  'door.standin-only': 'Only a simulated instrument can be pressed from here.',
  'door.seal-unsigned':
    'Both signatures must stand under what is there now: sign as tested, and as checked, then seal.',
  'door.seal-nothing-new': 'Nothing was added since issue {issue}. It stays as it is.',
  'door.no-issue': 'This job has no sealed issue {issue}.',
  'door.job-number': 'There is already a job {number}. Give this one another number.',
  'door.standin-reversed': 'The simulated tester shows reversed polarity and does not go on.',
  'door.standin-rating':
    'The simulated tester refuses: {value:0} {unit:unit} is above its rating of {most:0} {unit:unit}.',
} as const
