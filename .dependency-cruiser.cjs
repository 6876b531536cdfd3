const only = (from, allowed) => ({
  name: `${from}-knows-only-${allowed.join('-') || 'itself'}`,
  severity: 'error',
  from: { path: `^src/${from}/`, pathNot: '\\.test\\.ts$' },
  to: { path: '^src/', pathNot: [from, ...allowed].map((f) => `^src/${f}/`) },
});

module.exports = {
  forbidden: [
    only('core', []),
    only('ui', ['core']),
    only('features', ['core', 'ui']),
    only('server', ['core']),
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'core-without-node',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-small-libraries-only',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: {
        dependencyTypes: ['npm'],
        pathNot: 'node_modules/(zod|libphonenumber-js|luxon|yaml|ical\\.js|papaparse|pure-rand)/',
      },
    },
    { name: 'setup-is-plain-node', severity: 'error', from: { path: '^bin/[^/]+\\.mjs$' }, to: { path: '^src/' } },
    {
      name: 'command-knows-only-core',
      severity: 'error',
      from: { path: '^bin/command/' },
      to: { path: '^src/', pathNot: '^src/core/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: 'specify',
    tsConfig: { fileName: 'tsconfig.json' },
    exclude: { path: '\\.next|\\.build' },
  },
};
