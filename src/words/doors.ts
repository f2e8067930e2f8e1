import { doors } from './en/doors'
import { addWords } from './say'

addWords(doors)
