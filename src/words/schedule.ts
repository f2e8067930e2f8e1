import { schedule } from './en/schedule'
import { addWords } from './say'

addWords(schedule)
