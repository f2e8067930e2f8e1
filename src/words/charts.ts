import { charts } from './en/charts'
import { addWords } from './say'

addWords(charts)
