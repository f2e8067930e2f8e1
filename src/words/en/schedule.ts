/** Words of the schedule of test results. */
export const schedule = {
  'schedule.title': 'Schedule of test results',
  'schedule.of-circuit': 'Circuits',
  'schedule.of-rcd': 'Residual current devices',
  'schedule.part': 'Row',
  'schedule.empty': 'No circuits yet. Enter them in the plant.',
  'schedule.about':
    'Arrows, Enter and Tab move; a block can be pasted from a spreadsheet. A test is kept once all its cells are there.',
  'schedule.not-asked': 'not asked here',
  'schedule.on-bench': 'On the bench',
  'schedule.waiting': 'waiting for other cells: {count}',
  'schedule.not-said': 'say which',
  'schedule.say-above': 'Say above first: {what}.',
  'schedule.goes-on': 'Go on: the other cells of this test are wanted.',
  'schedule.two-figures': '“{text}” could be two figures. Type it with a point.',
  'schedule.pasted': '{count} cells taken.',
  'schedule.block-refused': 'Row {row}, {column}: “{text}” does not belong there. Nothing of the block was taken.',
  'schedule.schedule-empty': 'There is nothing in this block.',
  'schedule.schedule-columns': 'This block has {columns} columns, and {room} are here. Nothing was taken.',
  'schedule.schedule-rows': 'This block has {rows} rows, and {room} are here. Nothing was taken.',
} as const
