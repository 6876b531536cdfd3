import { writeFileSync } from 'node:fs';
import { rangeData } from './numbers/ranges';

/* Build step: writes what core/numbers knows of ranges from the numbering library's metadata. Run it after the library changed. */
writeFileSync('src/core/numbers/ranges.json', `${JSON.stringify(rangeData(), null, 1)}\n`);
