import { hasWords, sayCode } from '@/words/say'

/** What a choice of a plate is called: by words where there are some, else as the plate has it. */
export const optionText = (option: string | number): string =>
  hasWords(`plate-option.${option}`)
    ? sayCode('plate-option', String(option))
    : hasWords(`mounting.${option}`)
      ? sayCode('mounting', String(option))
      : String(option)
