import { compare } from './en/compare'
import { addWords } from './say'

addWords(compare)
