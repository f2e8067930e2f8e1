import { today } from './en/today'
import { addWords } from './say'

addWords(today)
