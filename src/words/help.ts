import { glossary } from './en/glossary'
import { tour } from './en/tour'
import { why } from './en/why'
import { addWords } from './say'

addWords({ ...glossary, ...tour, ...why })
