import { record } from './en/record'
import { addWords } from './say'

addWords(record)
