/** Names that a device and the office share when they talk. */

/** Header of every answer: the office's time, RFC 3339 in UTC, by which a device sets the offset of its clock. */
export const OFFICE_TIME = 'upstand-time'
/** Header by which a page says whose it is: in another tab somebody else may have signed in. */
export const PERSON = 'upstand-person'
