/** I-V curves: what is asked, what they show, and why some are refused. */
export const curve = {
  'curve.refused-too-few-points':
    'A curve needs at least 5 points at different voltages, 8 for a fit: read it again with more of them.',
  'curve.refused-not-numbers': 'Some of the points are no numbers: take those lines out, or export the curve again.',
  'curve.refused-all-zero': 'Every point is zero: nothing was connected, or the string is dark.',
  'curve.refused-no-open-circuit':
    'The curve stops long before its current comes to nothing: it wants points up to open circuit.',
  'curve.refused-no-short-circuit':
    'The curve begins far above 0 V: it wants points down to short circuit, in volts and amperes.',
  'curve.refused-backwards':
    'Voltage or current is negative throughout: the leads were crossed. Turn them round, or the sign of that column.',
  'curve.refused-crosses-itself':
    'The current rises again with the voltage: these are two curves, or the columns are mixed up.',
}
