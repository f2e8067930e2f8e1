import { signin } from './en/signin'
import { addWords } from './say'

addWords(signin)
