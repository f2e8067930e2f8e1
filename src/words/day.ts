import { day } from './en/day'
import { addWords } from './say'

addWords(day)
