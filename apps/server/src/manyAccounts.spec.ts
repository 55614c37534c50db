import type { Step } from '@pebble/contract';
import { startedApplication } from './testing/application';
import { WovenNetworks } from './testing/wovenNetworks';

/** More than a statement can be given values one by one. */
const ACCOUNTS = 33_000;

/** Posts in a ring: each account mentions the next one and uses one of 40 hashtags. */
function posts(): string {
  const lines = Array.from(
    { length: ACCOUNTS },
    (_, i) =>
      `p${i},walker${i},"To @walker${(i + 1) % ACCOUNTS} #lamp${i % 40}",2026-03-0${1 + (i % 9)}T10:00:00Z`,
  );
  return ['id,author,text,date', ...lines].join('\n');
}

describe('a study of more accounts than a statement takes values', () => {
  const app = startedApplication();
  const { make, evidence } = new WovenNetworks(app);
  const addresses = { what: 'accounts', kinds: ['mention'] };

  beforeAll(async () => {
    await app.take('ring.csv', posts());
  }, 240_000);

  it('is woven by who addresses whom, as the estimate said', async () => {
    const ring = await make(addresses);
    expect([ring.handles.length, ring.edges['source'].length]).toEqual([ACCOUNTS, ACCOUNTS]);
    expect((await evidence(ring.id, { node: 0 })).total).toBe(2);
  }, 120_000);

  it('is woven by who uses what', async () => {
    const used = await make({ what: 'two-mode', things: 'hashtag' });
    expect([used.handles.length, used.edges['source'].length]).toEqual([ACCOUNTS + 40, ACCOUNTS]);
  }, 120_000);

  it('is tidied as a whole, woven by that, and taken back as a whole', async () => {
    const rule = {
      sort: 'account',
      field: 'description',
      contains: 'x',
      category: 'place',
      value: 'quay',
    };
    // No account has a description; the profiles of all are asked.
    await app.step('categorise-by-rule', rule).expect(422);
    const done = (
      await app.step('categorise-by-rule', { ...rule, field: 'label', contains: 'walker' }).expect(200)
    ).body as Step;
    const decisions = done.result?.['decisions'] as number[];
    expect(decisions).toHaveLength(ACCOUNTS);
    const woven = await make(addresses);
    expect(new Set(woven.nodes['place'] as string[])).toEqual(new Set(['quay']));
    expect((await evidence(woven.id, { node: 7 })).total).toBe(2);
    const taken = (await app.step('take-back-tidy', { decisions }).expect(200)).body as Step;
    expect(taken.result?.['taken']).toBe(ACCOUNTS);
  }, 240_000);
});
