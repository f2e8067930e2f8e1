/** A remedy as stand-ins know it: of a part, or of one test of a part. */
export const remedyKey = (step: string, partId: string): string => `${step}:${partId}`
