import { asked } from './en/asked'
import { addWords } from './say'

addWords(asked)
