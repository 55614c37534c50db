import { takeApart } from '../storage/oneFile/takeApart';
import { prepareCatalogue } from '../storage/catalogue';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';

// Takes a data folder apart, to be killed while it does.
const folder = process.argv[2];
mkdirSync(join(folder, 'studies'), { recursive: true });
await prepareCatalogue(folder, () => undefined);
process.send?.('begun');
await takeApart(folder, () => undefined);
process.exit(0);
