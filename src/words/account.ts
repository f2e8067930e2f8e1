import { account } from './en/account'
import { addWords } from './say'

addWords(account)
