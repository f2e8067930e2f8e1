/** A step on a part, by one name. */
export const stepKey = (step: string, partId: string): string => `${step}:${partId}`
