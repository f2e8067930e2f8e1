import { dialogs } from './en/dialogs'
import { addWords } from './say'

addWords(dialogs)
