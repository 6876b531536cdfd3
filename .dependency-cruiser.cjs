/** A folder of ours knows nothing of ours but itself and the folders named. */
const only = (from, allowed) => ({
  name: `${from}-knows-only-${allowed.join('-') || 'itself'}`,
  severity: 'error',
  from: { path: `^src/${from}/` },
  to: { path: '^src/', pathNot: [from, ...allowed].map((f) => `^src/${f}/`) },
});

module.exports = {
  forbidden: [
    only('core', []),
    only('contract', ['core']),
    only('ui', ['core']),
    only('workbench', ['core', 'contract', 'ui']),
    only('features', ['core', 'contract', 'ui', 'workbench']),
    only('server', ['core', 'contract']),
    {
      name: 'stand-ins-know-only-core',
      severity: 'error',
      from: { path: '^stand-ins/' },
      to: { path: '^src/', pathNot: '^src/core/' },
    },
    {
      name: 'no-feature-knows-another',
      severity: 'error',
      from: { path: '^src/features/([^/]+)/' },
      to: { path: '^src/features/', pathNot: '^src/features/$1/' },
    },
    {
      name: 'only-pages-know-the-framework',
      severity: 'error',
      from: { path: '^src/server/', pathNot: '^src/server/pages/' },
      to: { path: 'node_modules/(next|react|react-dom)/' },
    },
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'no-cycles-of-folders',
      severity: 'error',
      scope: 'folder',
      from: { path: '^src/' },
      to: { circular: true },
    },
    {
      name: 'core-without-node',
      severity: 'error',
      from: { path: '^src/core/' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-small-libraries-only',
      severity: 'error',
      from: { path: '^src/core/' },
      to: {
        dependencyTypes: ['npm'],
        pathNot:
          'node_modules/(zod|libphonenumber-js|luxon|yaml|ical\\.js|rrule|papaparse|pure-rand|fast-xml-parser|@dagrejs/dagre)/',
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
    // Tests may know everything.
    exclude: { path: '\\.next|\\.build|\\.test\\.tsx?$|^tests/' },
  },
};
