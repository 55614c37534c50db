import type { IncomingMessage } from '@pebble/contract';
import { KIND_BIT } from '@pebble/core';
import { Batcher, type MessageBatch } from './batch';

const message = (change: Partial<IncomingMessage>): IncomingMessage => ({
  key: '1',
  authorHandle: 'ann',
  authorName: null,
  subject: null,
  text: '',
  time: null,
  kind: 'post',
  parentKey: null,
  parentHandle: null,
  addressed: [],
  hashtags: [],
  link: null,
  itemKey: null,
  numbers: {},
  attributes: {},
  ...change,
});

function batch(...messages: Partial<IncomingMessage>[]): MessageBatch {
  const batcher = new Batcher();
  for (const one of messages) batcher.add(message(one));
  return batcher.take(messages.length, 1);
}

/** Whom each message addresses, as "handle kinds". */
function addresses({ size, toStart, to, toKinds, newHandles }: MessageBatch): string[][] {
  return Array.from({ length: size }, (_, i) =>
    Array.from(
      to.subarray(toStart[i], toStart[i + 1]),
      (number, k) => `${newHandles[number].key} ${toKinds[toStart[i] + k]}`,
    ),
  );
}

describe('a repost that is marked in its text alone', () => {
  it('mentions those whom the text names, but not the one whom it passes on', () => {
    const marked = { kind: 'repost', parentHandle: 'bob', text: 'RT @bob: look @cem' } as const;
    expect(addresses(batch(marked))).toEqual([[`bob ${KIND_BIT.repost}`, `cem ${KIND_BIT.mention}`]]);
    expect(addresses(batch({ ...marked, text: 'RT @bob: as @bob said' }))).toEqual([
      [`bob ${KIND_BIT.repost | KIND_BIT.mention}`],
    ]);
  });
});

describe('Batcher', () => {
  it('numbers accounts in the order in which they come, one for all spellings of a handle', () => {
    const { newHandles, author } = batch(
      { authorHandle: 'Ann' },
      { authorHandle: '@ANN' },
      { authorHandle: 'ben' },
    );
    expect(newHandles).toEqual([
      { key: 'ann', written: 'Ann' },
      { key: 'ben', written: 'ben' },
    ]);
    expect([...author]).toEqual([0, 0, 1]);
  });

  it('brings names that are new with the batch only once', () => {
    const batcher = new Batcher();
    batcher.add(message({ authorName: 'Ann H.' }));
    expect(batcher.take(1, 0.5)).toMatchObject({ size: 1, displayNames: [[0, 'Ann H.']] });
    batcher.add(message({ authorName: 'Ann Harbour', text: '@ben' }));
    const { newHandles, displayNames, author, to } = batcher.take(2, 1);
    expect(newHandles.map(({ key }) => key)).toEqual(['ben']);
    expect(displayNames).toEqual([]);
    expect([author[0], to[0]]).toEqual([0, 1]);
  });

  // Common practice: one message gives one tie to each account it mentions or answers.
  it('puts all ways in which a message addresses one account together', () => {
    const { reply, mention, to, cc, quote, comment } = KIND_BIT;
    expect(
      addresses(
        batch(
          { kind: 'reply', parentHandle: 'ben', text: '@ben and @cy' },
          { text: 'nobody' },
          {
            addressed: [
              { handle: 'ben', name: null, how: 'to' },
              { handle: 'cy', name: 'Cy', how: 'cc' },
            ],
          },
          { text: '@ann talks to herself' },
          { kind: 'quote', parentHandle: 'ben', text: 'as he says' },
          { kind: 'comment', parentHandle: 'cy', text: 'no' },
        ),
      ),
    ).toEqual([
      [`ben ${reply | mention}`, `cy ${mention}`],
      ['ann 0'],
      [`ben ${to}`, `cy ${cc}`],
      [`ann ${mention}`],
      [`ben ${quote}`],
      [`cy ${comment}`],
    ]);
  });

  it('knows a short mention of an account that is named in full', () => {
    const { newHandles } = batch({
      text: '@Ben and @cy',
      addressed: [{ handle: 'ben@other.example', name: null, how: 'mention' }],
    });
    expect(newHandles.map(({ key }) => key)).toEqual(['ann', 'ben@other.example', 'cy']);
  });

  it('keeps each hashtag of a message once, but counts all that stand in the text', () => {
    const { tag, tagStart, found, newTags } = batch({
      text: '#Lamp #lamp https://x.example',
      hashtags: ['lamp', 'wall'],
    });
    expect(newTags.map(({ key }) => key)).toEqual(['lamp', 'wall']);
    expect([...tag.subarray(tagStart[0], tagStart[1])]).toEqual([0, 1]);
    expect([...found]).toEqual([0, 2, 1]);
  });

  it('keeps numbers and attributes as JSON, and nothing where there are none', () => {
    const { more, time } = batch({ numbers: { likes: 3 } }, {}, { time: 5 });
    expect(more).toEqual(['{"numbers":{"likes":3},"attributes":{}}', null, null]);
    expect([...time]).toEqual([NaN, NaN, 5]);
  });

  it('counts skipped rows into its size, and is empty after it was taken', () => {
    const batcher = new Batcher();
    batcher.skip({ row: 3, field: null, reason: 'x' });
    batcher.add(message({}));
    expect(batcher.size).toBe(2);
    expect(batcher.take(2, 1).skipped).toHaveLength(1);
    expect(batcher.size).toBe(0);
  });
});
