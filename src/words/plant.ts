import { particulars } from './en/particulars'
import { plant } from './en/plant'
import { plantDrawn } from './en/plantDrawn'
import { addWords } from './say'

addWords(particulars)
addWords(plant)
addWords(plantDrawn)
