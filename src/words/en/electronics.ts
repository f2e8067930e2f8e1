/** Words of electronics on modules: what holds a string back, and what of its tests then says anything. */
export const electronics = {
  'plant.module-electronics': 'Module electronics',
  'plant.electronics-held': 'Gives held back, V',
  'plant.electronics-most-volts': 'String at most, V',
  'plant.electronics-most-amperes': 'String at most, A',
  'plant.electronics-insulation': 'Insulation at most, V',
  'plate-option.shuts-off': 'shuts its module off',
  'plate-option.converts': 'a converter',
  'caution.held-is-not-off':
    'Held back is not off: a fault or a signal lets the full voltage through. Work as if it were there',
  'finding.pv-voc.held-unknown':
    'What each converter of string {tag} gives while it is held back is not entered. It stands on its data sheet.',
  'finding.pv-voc.held-no-reading': 'No voltage yet. Held back it should come to {expected_V:1} V, whatever the light.',
  'finding.pv-voc.held.within':
    '{read} V is what {modules} held-back modules give, {expected_V:1} V. It counts them and says nothing of their cells.',
  'finding.pv-voc.held.close':
    '{read} V against {expected_V:1} V is near half a module off. Count the modules and their converters.',
  'finding.pv-voc.held.outside':
    '{read} V is what {count|one:# held-back module gives|other:# held-back modules give}, and {modules} are entered: {expected_V:1} V.',
  'finding.pv-voc.held.not-yet': '{read} V decides nothing against {expected_V:1} V. Take it again on another range.',
  'finding.pv-voc.held-not':
    '{read} V is far above the {expected_V:1} V of held-back modules: nothing holds string {tag} back. Treat it as live.',
  'working.pv-voc.held': 'Held back: {modules} × {each_V:2} V',
  'working.pv-voc.held-allowed': 'Allowed: half of what one gives, 0.5 × {each_V:2} V',
  'rating.held-voltage': 'Half of what one module gives while held back',
  'cause.still-held': 'The modules’ electronics still hold the string back',
  'cause.converter-dead': '{count|one:A converter gives|other:# converters give} nothing, or a module without light',
  'cause.not-held': 'The string is released: its inverter is at work, or a signal stands',
  'next.release-by-sheet': 'Release string {tag} as the data sheet says, and read again.',
  'next.find-the-dead-converter': 'Read each module of string {tag} by itself: each should give its {each_V:2} V.',
  'next.hold-back-by-sheet': 'Switch the inverter and the signal off, wait as the data sheet says, and read again.',
  'finding.sound.held-back':
    'Not the sum of the modules, and right: {modules} converters hold the string at {each_V:2} V each until they are released.',
  'finding.pv-insulation.above-electronics':
    '{set_V:0} V is more than the electronics on the modules of string {tag} bear, {most_V:0} V. Choose less.',
  'finding.pv-insulation.electronics-unknown':
    'What the electronics on the modules of string {tag} bear in this test is not entered. Their data sheet says.',
  'working.pv-insulation.electronics-unknown': 'What the electronics bear is not known: never better than close',
  'working.pv-insulation.lowered-electronics':
    'Lowered to the highest step the electronics on the modules bear ({most_V:0} V)',
  'working.pv-insulation.system-converted':
    'System voltage: {factor:2} × {ceiling_V:0} V, the most the converters give',
  'working.design.converters': 'Whatever the cold: the most its converters give',
  'working.design.carried-converters': 'To carry: {parallel} × {most_A:1} A, the most its converters give',
} as const
