/* What reaches the browser: imports as they stand once types are gone. */

import base from './.dependency-cruiser.cjs';

const pages = {
  forbidden: [
    {
      name: 'pages-stay-light',
      comment: 'Number tables, calendars, YAML and the whole schema weigh more than a page; they stay on the server.',
      severity: 'error',
      from: { path: '^src/(features|workbench|ui)/' },
      to: {
        path: [
          '^src/core/numbers/ranges\\.json$',
          'node_modules/(libphonenumber-js|yaml|ical\\.js|exceljs)/',
          '^src/core/plan/(kinds|registry|plan)\\.ts$',
          '^src/contract/(?!paths\\.ts|rights\\.ts)',
        ],
        reachable: true,
      },
    },
  ],
  options: { ...base.options, tsPreCompilationDeps: false },
};

export default pages;
