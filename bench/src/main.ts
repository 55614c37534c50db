import { writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { figures } from './figures';
import { formats } from './formats';
import { formulas } from './formulas';
import { journey } from './journey';
import { centrality, groups } from './kernels';
import { layout } from './layouts';
import type { Row } from './measure';
import { painting } from './painting';
import { reading } from './reading';
import { manyVariations, routines } from './routines';
import { storeRows } from './store';
import { weaving } from './weaving';

const { values } = parseArgs({
  options: {
    json: { type: 'string' },
    posts: { type: 'string', default: '500000' },
    only: { type: 'string' },
  },
});
if (values.only === 'journey') {
  await journey(Number(values.posts));
  process.exit(0);
}
const parts: Record<string, () => Promise<Row[]>> = {
  groups,
  centrality,
  layout,
  weaving,
  reading,
  store: () => storeRows(Number(values.posts)),
  formats,
  formulas,
  painting,
  figures,
  routines: () => routines(Number(values.posts)),
  variations: () => manyVariations(Number(values.posts)),
};

const figure = (value: number): string =>
  value >= 100 ? Math.round(value).toLocaleString('en') : value.toPrecision(3);
const rows: Row[] = [];
console.log(
  '| what | size of the work | ours | reference | ratio | bound | held | note |\n|---|---|---:|---:|---:|---|---|---|',
);
for (const [name, part] of Object.entries(parts)) {
  if (values.only && values.only !== name) continue;
  for (const row of await part()) {
    rows.push(row);
    console.log(
      `| ${row.name} | ${row.work} | ${figure(row.ours)} | ${figure(row.reference)} | ${row.ratio.toFixed(2)} | ${row.bound} | ${row.held ? 'yes' : 'NO'} | ${row.note} |`,
    );
  }
}
if (values.json) writeFileSync(values.json, JSON.stringify(rows, null, 2));
process.exit(0);
