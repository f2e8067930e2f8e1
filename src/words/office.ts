import { office } from './en/office'
import { addWords } from './say'

addWords(office)
