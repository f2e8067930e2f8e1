import { people } from './en/people'
import { addWords } from './say'

addWords(people)
