import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { handleKey } from '@pebble/core';
import type { AudienceMembers, Audiences, AudienceSets, Network, Step } from '@pebble/contract';
import Papa from 'papaparse';
import { startedApplication } from './testing/application';

const LISTS = ['harbour_post', 'marsh_records', 'quay_traders', 'sallow_sky_club'] as const;
const file = (name: string): string => readFileSync(join(__dirname, '../../../demo', name), 'utf8');

/** The handles of a list, straight from its file. */
const handlesOf = (list: string): Set<string> => {
  const { data, meta } = Papa.parse<Record<string, string>>(file(`followers of ${list}.csv`), {
    header: true,
    skipEmptyLines: true,
  });
  const column = meta.fields!.find((name) => /handle/i.test(name)) ?? meta.fields![0];
  return new Set(data.map((row) => handleKey(row[column])));
};

describe('shared audiences', () => {
  const app = startedApplication();
  const post = async <T>(path: string, body: object): Promise<T> =>
    (await app.api.post(`/api/v1/studies/${app.study}/${path}`).send(body).expect(200)).body as T;
  const sets = async (query: object): Promise<AudienceSets> =>
    (await app.api.get(`/api/v1/studies/${app.study}/audience-sets`).query(query).expect(200))
      .body as AudienceSets;
  const lists = LISTS.map(handlesOf);

  beforeAll(async () => {
    for (const list of LISTS) await app.take(`followers of ${list}.csv`, file(`followers of ${list}.csv`));
  }, 60_000);

  it('are the followers of lists, counted as the files count them', async () => {
    const offered = await sets({ sort: 'followers' });
    expect(offered.sets.map(({ name }) => name).sort()).toEqual([...LISTS].sort());
    const found = await post<Audiences>('audiences', { sort: 'followers', names: LISTS });
    expect(found.sizes).toEqual(lists.map((list) => list.size));
    const all = [...new Set(lists.flatMap((list) => [...list]))];
    expect(found.members).toBe(all.length);
    for (const { sets: own, members } of found.combinations)
      expect(members).toBe(
        all.filter((one) => lists.every((list, s) => list.has(one) === own.includes(s))).length,
      );
    for (const { a, b, both } of found.pairs)
      expect(both).toBe([...lists[a]].filter((one) => lists[b].has(one)).length);
  });

  it('answer who follows A and B but not C, with what is typical of their descriptions', async () => {
    const asked = { sort: 'followers', names: LISTS, inside: [0, 1], outside: [2] };
    const { total, members, typical, described } = await post<AudienceMembers>('audience-members', asked);
    const expected = [...lists[0]].filter((one) => lists[1].has(one) && !lists[2].has(one));
    expect(total).toBe(expected.length);
    for (const { handle, sets: own } of members) {
      expect(expected).toContain(handleKey(handle));
      expect(own).toEqual(expect.arrayContaining([0, 1]));
      expect(own).not.toContain(2);
    }
    expect(described.here).toBeLessThanOrEqual(total);
    // Further members come with what is told of each; what is typical of all was told with the first.
    const next = await post<AudienceMembers>('audience-members', { ...asked, offset: 5, limit: 3 });
    expect(next.total).toBe(total);
    expect(next.members).toEqual(members.slice(5, 8));
    expect(members.some(({ name, description }) => name && description)).toBe(true);
    expect(next.typical).toEqual([]);
    for (const { messages, authors } of typical) expect(messages).toBe(authors);
  });

  it('are participants of events, of a network of two sorts', async () => {
    const step = await app.take('sign-in-sheet.csv', file('sign-in-sheet.csv'));
    const network = String(step.result?.['network']);
    const { sets: events } = await sets({ sort: 'network', network });
    expect(events).toHaveLength(5);
    const names = events.map(({ name }) => name);
    const found = await post<Audiences>('audiences', { sort: 'network', network, names });
    expect(found.sizes).toEqual(events.map(({ members }) => members));
    const { total } = await post<AudienceMembers>('audience-members', {
      sort: 'network',
      network,
      names,
      inside: [0],
      outside: [1, 2, 3, 4],
    });
    const alone = found.combinations.find((one) => one.sets.join() === '0');
    expect(total).toBe(alone?.members ?? 0);
  });

  it('can be marked in a network: accounts by their handles, members of two sorts themselves', async () => {
    const mark = async (network: string, audience: object, value: string) =>
      app.step('mark-audience', { network, audience, column: 'audience', value });
    const read = async (network: string): Promise<Record<string, string>[]> =>
      Papa.parse<Record<string, string>>(
        (await app.api.get(`/api/v1/studies/${app.study}/networks/${network}/export/csv-nodes`).expect(200))
          .text,
        { header: true, skipEmptyLines: true },
      ).data;
    const woven = await app
      .step('weave', { name: 'F', weave: { what: 'follows', sorts: 'two' } })
      .expect(200);
    const network = String((woven.body as Step).result?.['network']);
    const audience = { sort: 'followers', names: LISTS, inside: [0, 1], outside: [2] };
    const { body } = await mark(network, audience, 'both').then((answer) => answer);
    const expected = [...lists[0]].filter((one) => lists[1].has(one) && !lists[2].has(one));
    expect((body as Step).result).toMatchObject({ members: expected.length, nodes: expected.length });
    const marked = (await read(network)).filter((row) => row['audience'] === 'both');
    expect(marked.map((row) => handleKey(row['handle'])).sort()).toEqual(expected.sort());
    expect((body as Step).sentence).toContain(
      'in “harbour_post” and “marsh_records”, but not in “quay_traders”',
    );

    const [sheet] = (await app.list<Network>('networks')).filter((one) => one.weave === null);
    const { sets: events } = await sets({ sort: 'network', network: sheet.id });
    const one = { sort: 'network', network: sheet.id, names: [events[0].name], inside: [0], outside: [] };
    await mark(sheet.id, one, 'first evening').then(({ status }) => expect(status).toBe(200));
    expect((await read(sheet.id)).filter((row) => row['audience'] === 'first evening')).toHaveLength(
      events[0].members,
    );
    // Nobody of the lists signed; nothing is changed, and it is said.
    const nobody = await mark(sheet.id, audience, 'both');
    expect([nobody.status, (nobody.body as { detail: string }).detail]).toEqual([
      422,
      expect.stringMatching(/^None of \d+ members is among the nodes/),
    ]);
    const foreign = await mark(network, { ...one, network: 'none' }, 'a');
    expect(foreign.status).toBe(404);
    const computed = await app.step('mark-audience', { network, audience, column: 'mode', value: 'a' });
    expect(computed.status).toBe(422);
  }, 60_000);

  it('refuse what is no set, and more than 30', async () => {
    const none = await post<Audiences>('audiences', { sort: 'hashtag', names: ['#nothing'] });
    expect([none.sizes, none.combinations]).toEqual([[0], []]);
    const names = Array.from({ length: 31 }, (_, i) => `#${i}`);
    await app.api.post(`/api/v1/studies/${app.study}/audiences`).send({ sort: 'hashtag', names }).expect(400);
    await app.api
      .post(`/api/v1/studies/${app.study}/audiences`)
      .send({ sort: 'network', network: 'none', names: ['a'] })
      .expect(404);
  });
});
