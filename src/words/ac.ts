import { ac } from './en/ac'
import { acSays } from './en/acSays'
import { addWords } from './say'

addWords({ ...ac, ...acSays })
