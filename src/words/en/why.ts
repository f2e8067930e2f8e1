/** Why each test is made and what its limit keeps from happening: said beside the limit. */
export const why = {
  'why.title': 'Why: {step}',
  'why.from': 'Where it comes from',
  'why.limits-later': 'Its limits stand here as soon as it is known what they go by.',
  'why.no-limits': 'Nothing is measured against a figure here: what counts is what was seen and done.',
  'why.standing.published': 'Written down from memory. Hold it against the document before you rely on it.',
  'why.standing.trade': 'Common practice; no document gives it.',
  'why.standing.house': 'A rule of this tool: {why}.',
  'why.standing.company': 'Set by the company: {reason} ({who}).',
  'why.local': 'Local rules and whoever is licensed to sign come first. Regime: {name}, version {version}.',
  'why.inspection':
    'Most of what is wrong with an installation can be seen before anything is connected: a strained plug, a bare cable on an edge, a missing label.',
  'why.ac-inspection':
    'Most faults of an installation can be seen, and many that kill cannot be measured: an open hole through a fire wall, a cover that is missing, a joint behind plaster.',
  'why.bonding':
    'Pipes and steel bring earth’s potential in or carry a fault’s out. Bonded they rise with everything else, and nobody stands between two of them.',
  'why.supply-polarity':
    'A supply whose line and neutral are changed over makes every switch cut the wrong conductor, and with one combined conductor puts all metal at mains voltage.',
  'why.board-polarity':
    'What came in right may be changed over on the way. Motors turn by the sequence; single-pole devices cut the line only where it is the line.',
  'why.grid-watch': 'An inverter that comes back too soon feeds into a network that others are still putting right.',
  'why.insulation-connected':
    'The cable alone was sound; what was connected since may not be. It is read gently, for electronics are in.',
  'why.point-inspection':
    'A point that a car can crush, or whose own earth stands beside metal on another, is not made safe by any reading.',
  'why.design-voltage':
    'Cold modules give more volts than their plate. Above what inverter, switch or module stand, the insulation inside breaks down on the first cold clear morning.',
  'why.design-tracker':
    'Outside its window the inverter cannot follow the point of most power, or does not start at all in heat.',
  'why.design-current':
    'Bright edges of clouds push the current above the plate for minutes. A switch or a joint that is too small burns out.',
  'why.design-fuses':
    'Where one string is faulty the others feed into it. A module can bear only the fuse that its plate names.',
  'why.design-kit':
    'A tester that is asked for more than its rating may arc in the hand. Nothing is connected to it before this stands.',
  'why.point-design':
    'A car can leak smooth direct current, which blinds an RCD that is not made for it; and a lost PEN puts the body of the car at mains voltage.',
  'why.lead-null':
    'The leads have as much resistance as the conductor that is read. What is not taken off is counted as the installation’s.',
  'why.safe-isolation':
    'A plug that is parted under load draws an arc that does not go out by itself. No current on the clamp, then it may be parted.',
  'why.sensors':
    'Light and warmth are the measure for every string: a sensor that lies otherwise than its modules is wrong for all of them.',
  'why.earth-continuity':
    'A row that is not bonded can come to the full voltage of its string, and nothing trips. The resistance says whether bonding reaches it.',
  'why.pv-polarity':
    'A reversed string beside others drives its current through them; at the inverter it can destroy the input. It stops everything.',
  'why.combiner-polarity':
    'One reversed string among others doubles the voltage between them, and the fuse goes with an arc when it is put in.',
  'why.pv-voc':
    'Each module adds its part. What is missing names itself: a module, a third of one, a plug in the wrong string.',
  'why.pv-isc':
    'Current follows the light. A string that gives less than its neighbours under the same light has shade, dirt, or cells that lost contact.',
  'why.pv-insulation':
    'Below it, damp or a scuffed cable lets current reach the frame: the inverter refuses to start on a wet morning, or somebody who touches the rail closes the circuit.',
  'why.pv-curve':
    'Voltage and current alone do not see a step in between. The shape shows shade, a bypassed group, a joint that ages.',
  'why.earth-fault': 'A fault that is placed is mended at one plug; else somebody takes off every module.',
  'why.surge-back': 'Left out of its base it guards nothing: the next storm finds the inverter.',
  'why.plugs-locked': 'A plug that is not locked works loose, warms, and is the usual beginning of a fire on a roof.',
  'why.ac-proved':
    'The inverter makes its own circuit live. Its protective conductor, insulation and polarity are proved before that.',
  'why.reconnect':
    'What was parted for the tests must be back, and the inverter must let go of a dead network at once: somebody may be working on it.',
  'why.operating':
    'Strings alike under the same light give the same power. It is the only test that sees a fault which shows under load alone.',
  'why.circuit-off':
    'A breaker that is merely off is switched on by whoever misses the light. Locked, with its line out, it stays off.',
  'why.prove-dead':
    'A prover that died looks like a dead circuit. It is shown to work before and after; inverter, battery and generator are sources too.',
  'why.ring-ends':
    'A ring that is open somewhere still works. Its conductors are then alone with the load, and nobody notices until they are warm.',
  'why.r1r2':
    'It proves that the protective conductor reaches the end of the circuit before anything is live. Through an open one a fault would put metal at mains voltage.',
  'why.ac-insulation':
    'A nail through a cable or a damp box reads low long before it burns or shocks. It is read before the supply comes on.',
  'why.ac-polarity':
    'With line and neutral the wrong way round, switches and fuses stand in the neutral: what is switched off stays live.',
  'why.electrode':
    'On TT the electrode is the only way back for a fault. Times the current that trips the RCD it must stay under the voltage a person can bear.',
  'why.electrode-back':
    'With its conductor off there is no earth at all on TT. Nothing may come on before it is back and tight.',
  'why.electrode-loop':
    'Without spikes the network serves as the far earth. The loop is a little more than the electrode alone, so what it allows is allowed.',
  'why.electrode-loop-back':
    'With its conductor off there is no earth at all on TT. Nothing may come on before it is back and tight.',
  'why.ze':
    'It is what the network brings. Every loop inside can only add to it at the origin, and every limit is worked out with it.',
  'why.earth-back':
    'With the earthing conductor off, a fault puts every metal part in the house at mains voltage, and nothing trips.',
  'why.fault-current':
    'A breaker that must cut more than it is made for bursts. The highest current at the board decides.',
  'why.zs':
    'A fault must let so much current flow that the device trips in time. Too high a loop, and metal stays live as long as the fault lasts.',
  'why.rcd-trips':
    'A person’s heart bears so many milliamperes for so many milliseconds. Below half it must hold, or it trips for nothing and is taken out.',
  'why.rcd-button':
    'It proves the mechanism, not the circuit. One that sticks is found here, and by whoever lives there.',
  'why.ac-functional': 'A board is only finished when what it feeds works and its guards are back.',
  'why.rcd-kind':
    'Electronics leak current that a simple device does not see, or that blinds it; and one that is fed from its load side may burn when it opens.',
  'why.additional-protection':
    'Where people hold what is plugged in, or a cable is easily hit, only a small device acts before a heart stops.',
  'why.overload': 'A cable that carries more than it may grows hot for hours before anything trips.',
  'why.voltage-drop':
    'Motors start hard and lamps flicker where too much is lost on the way, and a long way makes a fault slow to clear.',
  'why.rcd-cascade':
    'Of two in a row the nearer one must go first, or a faulty kettle puts the whole house in the dark.',
  'why.point-locks-off':
    'The tests need the point to give current without a card. What is switched off for them is put back after.',
  'why.point-pretest':
    'Before a hand touches the body of the point: if its earth is live or lost, the car would be too.',
  'why.point-states':
    'Car and point agree by a voltage on one contact. A point that gives current in the wrong state makes an open plug live.',
  'why.point-pilot-short': 'A crushed cable shorts the pilot. The outlet must go dead at once, and stay so.',
  'why.point-earth-lost':
    'When the earth breaks while charging, the body of the car has no way back. The outlet must go dead.',
  'why.point-current':
    'The car takes what the pilot allows. More than cable and breaker bear, and they warm night after night.',
  'why.point-share': 'Points on one supply share it. If they do not keep to their part, the main fuse goes.',
  'why.point-load': 'With the house at work as well, the sum must stay under the main fuse.',
  'why.point-voltages': 'Outside its range the car stops or takes harm; a neutral that floats shows here first.',
  'why.point-zs':
    'As for any circuit: a fault in the car must trip in time. It is read through the detector, without tripping it.',
  'why.point-trips':
    'Each trip wears the same guard for a person. It must go at every angle and for each kind of current that a car can leak.',
  'why.point-detector':
    'From 6 mA of smooth direct current on, an ordinary RCD no longer sees a shock. The detector must have gone before.',
  'why.point-lost-pen':
    'A PEN that breaks in the street puts the car body at mains voltage against the ground it stands on. The point must let go, earth included.',
  'why.point-settings': 'Clock, name and limits are what the next owner relies on, and nobody looks at them again.',
  'why.point-locks-on': 'What was opened for the tests would let anybody take current, or the cover off.',
  'why.close-out': 'A cover left open or a label left off is found by water, or by the one who comes at night.',
  'why.close-out-ac': 'A cover left open or a label left off is found by the one who comes in the dark.',
  'why.house-close-band': 'a reading in the last fifth towards a limit is worth a second look',
  'why.house-light-moved': 'light that moved as much as the band itself tells strings apart no longer',
  'why.house-minute': 'modules warm and cool over minutes, clouds pass within seconds',
  'why.house-expectation':
    'a model of the plate is as sure as that; the standard’s own five per cent are between strings',
  'why.house-module-spread': 'sound modules of one type differ by about one per cent',
  'why.house-sensor': 'about the worst class of light meter on sale',
  'why.house-slip': 'about ten times what is expected is usually a slipped point',
  'why.house-clamp': 'what a usual clamp shows by itself lies below',
  'why.house-plane': 'more than that costs over one per cent of the light in the middle of a day',
  'why.house-joint': 'a clean clamp has far less, a loose one far more',
  'why.house-earth-fault': 'less is the meter’s own leakage, and places no fault',
  'why.house-loop': 'instruments of this kind agree that far',
  'why.house-perfect': 'nothing long that is connected reads so',
  'why.house-keep-off': 'as near as a locator and a tape agree',
  'why.house-along': 'the fields of the spikes reach about so far',
  'why.house-far-above': 'a conductor is broken, not warm or badly touched',
  'why.house-curve-shape': 'scatter of sound modules makes less',
  'why.house-without-light':
    'strings read within 10 minutes stand in one light; a current tells it for half an hour, less surely by the minute',
} as const
