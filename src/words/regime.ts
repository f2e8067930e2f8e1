import { regime } from './en/regime'
import { addWords } from './say'

addWords(regime)
