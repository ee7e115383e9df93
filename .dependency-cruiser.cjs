/** Arrows run downwards only: app, features, ui, core; features, workers, core; features, server, core. */
const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: `^src/${from}/` },
  to: { path: '^src/', pathNot: [`^src/${from}/`, ...allowed.map((to) => `^src/${to}/`)] },
})

/** The floors of the core, the lowest first; files beside the folders belong to all. */
const FLOORS = [
  ['geometry'],
  ['puzzle'],
  ['catalog'],
  ['notation'],
  ['analysis'],
  ['search'],
  ['scramble'],
  ['universal'],
  ['schools'],
  ['claims'],
  ['words'],
  ['coach'],
  ['stuck', 'statistics'],
  ['copy', 'algorithms'],
]

const floors = FLOORS.map((floor, at) => ({
  name: `core-floor-${floor[0]}`,
  severity: 'error',
  from: { path: `^src/core/(${floor.join('|')})/`, pathNot: '[.](test|testing)[.]ts$' },
  to: {
    path: `^src/core/(${[...FLOORS.slice(at + 1).flat(), ...floor].join('|')})/`,
    pathNot: '^src/core/$1/',
  },
}))

module.exports = {
  forbidden: [
    ...floors,
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true, dependencyTypesNot: ['type-only'] },
    },
    only('core-imports-core-only', 'core', []),
    only('workers', 'workers', ['core']),
    only('server', 'server', ['core']),
    only('ui', 'ui', ['core']),
    only('features', 'features', ['core', 'ui', 'workers', 'server']),
    only('app', 'app', ['core', 'features', 'server', 'ui']),
    only('cli', 'cli', ['core', 'server']),
    only('front', 'front', ['core', 'server', 'ui']),
    {
      name: 'core-is-pure',
      comment: 'Plain TypeScript: no Node built-ins, and of packages only the schema library.',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '([.]test[.]ts|/testing[.]ts)$' },
      to: {
        dependencyTypes: ['core', 'npm', 'npm-dev', 'npm-optional', 'npm-peer'],
        pathNot: 'node_modules/yup/',
      },
    },
    {
      name: 'features-stay-apart',
      comment: 'One folder a screen; what two screens share belongs to ui or core.',
      severity: 'error',
      from: { path: '^src/features/([^/]+)/' },
      to: { path: '^src/features/', pathNot: '^src/features/$1/' },
    },
    {
      name: 'pages-get-no-server-modules',
      comment: 'Only server actions, server components and routes may run server code.',
      severity: 'error',
      from: { path: '^src/(ui|workers|core)/' },
      to: { path: '^src/server/' },
    },
    {
      name: 'nothing-imports-routes',
      severity: 'error',
      from: { pathNot: '^src/app/' },
      to: { path: '^src/app/' },
    },
    { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'node', 'default', 'types'],
    },
    exclude: { path: '[.]css$' },
  },
}
