import { curve } from './en/curve'
import { addWords } from './say'

addWords(curve)
