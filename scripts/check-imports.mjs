// Checks that imports run one way; fails also when it saw no modules, for then it checked nothing.
import { cruise } from 'dependency-cruiser'
import extractTSConfig from 'dependency-cruiser/config-utl/extract-ts-config'
import config from '../.dependency-cruiser.cjs'

const LEAST_MODULES = 60
const { output } = await cruise(
  ['src'],
  { ...config.options, ruleSet: { forbidden: config.forbidden }, validate: true },
  undefined,
  {
    tsConfig: extractTSConfig('tsconfig.json'),
  },
)
const own = output.modules.filter((module) => module.source.startsWith('src/'))
const arrows = own.reduce((sum, module) => sum + module.dependencies.length, 0)
for (const { rule, from, to } of output.summary.violations) console.error(`${rule.name}: ${from} -> ${to}`)
console.log(`${own.length} modules, ${arrows} imports, ${output.summary.violations.length} against the rules`)
if (own.length < LEAST_MODULES || arrows < own.length) {
  console.error(`too few modules were seen (${own.length}): the check itself is broken`)
  process.exit(1)
}
process.exit(output.summary.violations.length > 0 ? 1 : 0)
