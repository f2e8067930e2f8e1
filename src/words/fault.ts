import { fault } from './en/fault'
import { addWords } from './say'

addWords(fault)
