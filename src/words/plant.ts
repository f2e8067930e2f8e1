import { plant } from './en/plant'
import { addWords } from './say'

addWords(plant)
