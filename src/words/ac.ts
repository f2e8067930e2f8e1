import { ac } from './en/ac'
import { acLook } from './en/acLook'
import { acSays } from './en/acSays'
import { besides } from './en/besides'
import { guide } from './en/guide'
import { plug } from './en/plug'
import { plugAsks } from './en/plugAsks'
import { plugSays } from './en/plugSays'
import { addWords } from './say'

addWords({ ...ac, ...acLook, ...acSays, ...besides, ...plug, ...plugAsks, ...plugSays, ...guide })
