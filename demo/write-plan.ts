import { writeFileSync } from 'node:fs';
import { stringify } from 'yaml';
import { readPlan } from '@/core/plan';
import { lanternfold } from './lanternfold';

const document = lanternfold();
const read = readPlan(document);
if (!read.ok) {
  for (const e of read.errors) console.error(`${e.path}: ${e.sentence}`);
  process.exit(1);
}
writeFileSync(
  'demo/plan.yaml',
  `# The demo company, written by demo/lanternfold.ts.\n${stringify(document, { lineWidth: 0, aliasDuplicateObjects: false })}`,
);
