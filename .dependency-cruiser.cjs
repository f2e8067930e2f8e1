/** Imports run one way: app -> ui, server -> core; standin -> core's types and data; core -> nothing but zod and numeric packages. */
const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: from, pathNot: '\\.test\\.tsx?$' },
  to: { pathNot: [from, ...allowed] },
})

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true, dependencyTypesNot: ['type-only'] } },
    // Libraries without a machine under them: shapes, hashes, tables, time zones and the sun's path.
    only('core-stands-alone', '^src/core/', [
      'node_modules/zod/',
      'node_modules/@noble/hashes/',
      'node_modules/papaparse/',
      'node_modules/luxon/',
      'node_modules/ml-matrix/',
      'node_modules/suncalc/',
    ]),
    only('words-need-core', '^src/words/', ['^src/core/']),
    only('standin-needs-core', '^src/standin/', ['^src/core/']),
    only('look-stands-alone', '^src/look/', []),
    only('report-needs-core-words-and-look', '^src/report/', ['^src/core/', '^src/words/', '^src/look/']),
    {
      name: 'ui-stays-out-of-the-server',
      severity: 'error',
      from: { path: '^src/ui/' },
      to: { path: '^src/(server|app|cli)/' },
    },
    {
      name: 'server-stays-out-of-the-screens',
      severity: 'error',
      from: { path: '^src/server/' },
      to: { path: '^src/(ui|app|cli)/' },
    },
    {
      name: 'ui-needs-no-node',
      severity: 'error',
      from: { path: '^src/(ui|core|words|report|standin)/', pathNot: '\\.test\\.tsx?$' },
      to: { dependencyTypes: ['core'] },
    },
    { name: 'app-is-the-top', severity: 'error', from: { path: '^src/(?!app/)' }, to: { path: '^src/app/' } },
    {
      name: 'steps-do-not-know-each-other',
      severity: 'error',
      from: { path: '^src/core/steps/pv[A-Z]\\w+\\.ts$' },
      to: { path: '^src/core/steps/pv[A-Z]\\w+\\.ts$' },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require', 'node', 'default'] },
  },
}
