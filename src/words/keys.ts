import { keys } from './en/keys'
import { addWords } from './say'

addWords(keys)
