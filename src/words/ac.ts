import { ac } from './en/ac'
import { acSays } from './en/acSays'
import { besides } from './en/besides'
import { guide } from './en/guide'
import { plug } from './en/plug'
import { plugAsks } from './en/plugAsks'
import { plugSays } from './en/plugSays'
import { addWords } from './say'

addWords({ ...ac, ...acSays, ...besides, ...plug, ...plugAsks, ...plugSays, ...guide })
