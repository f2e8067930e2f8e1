import { print } from './en/print'
import { addWords } from './say'

addWords(print)
