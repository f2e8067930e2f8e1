import { planner } from './en/planner'
import { addWords } from './say'

addWords(planner)
