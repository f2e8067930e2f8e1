import { plant } from './en/plant'
import { plantDrawn } from './en/plantDrawn'
import { addWords } from './say'

addWords(plant)
addWords(plantDrawn)
