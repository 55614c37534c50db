import type { IncomingFollow, IncomingItem, IncomingMessage, IncomingProfile } from '@pebble/contract';
import { isActivity, takeActivity } from './activities';
import { accountOf } from './activityValues';

const CONTEXT = 'https://www.w3.org/ns/activitystreams';
interface Everything {
  messages: IncomingMessage[];
  items: IncomingItem[];
  follows: IncomingFollow[];
  profiles: IncomingProfile[];
  reasons: string[];
}
function everything(value: unknown): Everything {
  const all: Everything = { messages: [], items: [], follows: [], profiles: [], reasons: [] };
  takeActivity(value, 1, {
    message: (one) => void all.messages.push(one),
    item: (one) => void all.items.push(one),
    follow: (one) => void all.follows.push(one),
    profile: (one) => void all.profiles.push(one),
    skip: ({ reason }) => void all.reasons.push(reason),
  });
  return all;
}
const taken = (value: object): IncomingMessage => {
  const { messages, reasons } = everything(value);
  if (messages.length !== 1) throw new Error(reasons.join());
  return messages[0];
};
const refused = (value: unknown): string => everything(value).reasons.join();

// The objects follow the examples of the W3C ActivityStreams 2.0 Vocabulary (2017), written down from memory.
describe('takeActivity', () => {
  const note = {
    '@context': CONTEXT,
    type: 'Note',
    id: 'https://hub.example/notes/1',
    attributedTo: 'https://hub.example/users/sally',
    name: 'A Word of Warning',
    content: 'Looks like it is going to rain today. Bring an umbrella!',
  };

  it('reads a Note (Vocabulary, section 3.3)', () => {
    expect(taken(note)).toMatchObject({
      key: 'https://hub.example/notes/1',
      authorHandle: 'sally@hub.example',
      subject: 'A Word of Warning',
      text: 'Looks like it is going to rain today. Bring an umbrella!',
      kind: 'post',
      time: null,
    });
  });

  it('reads a Create, whose date and actor hold where the object has none', () => {
    const { attributedTo: _a, ...bare } = note;
    expect(
      taken({
        type: 'Create',
        id: 'https://hub.example/activities/1',
        actor: {
          type: 'Person',
          id: 'https://hub.example/users/sally',
          preferredUsername: 'Sally',
          name: 'Sally S.',
        },
        published: '2015-02-10T15:04:55Z',
        object: bare,
      }),
    ).toMatchObject({
      key: 'https://hub.example/notes/1',
      authorHandle: 'Sally@hub.example',
      authorName: 'Sally S.',
      time: Date.UTC(2015, 1, 10, 15, 4, 55),
    });
  });

  it('takes Mention and Hashtag tags, and the accounts of to and cc that are no collections', () => {
    const message = taken({
      ...note,
      to: ['https://www.w3.org/ns/activitystreams#Public', 'https://hub.example/users/ann'],
      cc: ['https://hub.example/users/sally/followers', 'https://other.example/@joe'],
      tag: [
        { type: 'Mention', href: 'https://other.example/@joe', name: '@joe' },
        { type: 'Hashtag', href: 'https://hub.example/tags/givingthanks', name: '#givingthanks' },
      ],
    });
    expect(message.addressed).toEqual([
      { handle: 'joe@other.example', name: null, how: 'mention' },
      { handle: 'ann@hub.example', name: null, how: 'to' },
    ]);
    expect(message.hashtags).toEqual(['givingthanks']);
  });

  it('makes plain text of HTML', () => {
    expect(
      taken({ ...note, content: '<p>Dim &amp; amber</p><p>the <b>wall</b><br>now</p><script>x()</script>' })
        .text,
    ).toBe('Dim & amber\nthe wall\nnow');
  });

  it('takes the first language of a map of languages', () => {
    const { content: _c, ...rest } = note;
    const message = taken({ ...rest, contentMap: { es: 'Una nota <em>sencilla</em>', en: 'A simple note' } });
    expect(message.text).toBe('Una nota sencilla');
    expect(message.attributes['language']).toBe('es');
  });

  it('takes an answer for a reply, by address or by the object itself', () => {
    expect(taken({ ...note, inReplyTo: 'https://hub.example/notes/0' })).toMatchObject({
      kind: 'reply',
      parentKey: 'https://hub.example/notes/0',
      parentHandle: null,
    });
    const inReplyTo = {
      type: 'Note',
      id: 'https://hub.example/notes/0',
      attributedTo: 'https://hub.example/@ann',
    };
    expect(taken({ ...note, inReplyTo }).parentHandle).toBe('ann@hub.example');
  });

  it('takes an Announce for a repost, with the text of what it passes on', () => {
    const announce = {
      type: 'Announce',
      id: 'a1',
      actor: 'https://hub.example/@joe',
      published: '2026-03-01T00:00:00Z',
    };
    expect(taken({ ...announce, object: note })).toMatchObject({
      kind: 'repost',
      parentKey: note.id,
      parentHandle: 'sally@hub.example',
      text: note.content,
    });
    expect(taken({ ...announce, object: note.id })).toMatchObject({
      parentKey: note.id,
      parentHandle: null,
      text: '',
    });
  });

  it('says why it leaves something out', () => {
    expect(refused({ type: 'Tombstone', id: 'x', formerType: 'Note' })).toContain('deleted');
    expect(refused({ type: 'Like', actor: 'x', object: 'y' })).toBe('“Like” is not a kind of message.');
    expect(refused('https://hub.example/notes/1')).toContain('only an address');
    expect(refused({ ...note, attributedTo: undefined })).toContain('no author');
    expect(refused({ ...note, published: 'soon' })).toContain('soon');
    expect(refused({ ...note, content: '', name: '' })).toContain('no content');
    expect(refused({ type: 'Create', actor: 'x', object: 'https://hub.example/1' })).toContain(
      'only by address',
    );
  });
});

it.each([
  ['acct:joe@hub.example', 'joe@hub.example'],
  ['https://hub.example/@joe', 'joe@hub.example'],
  ['https://Hub.example/users/joe/', 'joe@hub.example'],
  ['https://hub.example/', 'https://hub.example/'],
  [{ id: 'https://hub.example/actors/17', preferredUsername: 'joe' }, 'joe@hub.example'],
  [{ type: 'Person', name: 'Joe' }, 'Joe'],
  [undefined, null],
])('knows the account of %j (RFC 7565 form)', (actor, account) => {
  expect(accountOf(actor)).toBe(account);
});

it('tells ActivityStreams from other JSON', () => {
  expect(isActivity({ '@context': CONTEXT, type: 'Collection' })).toBe(true);
  expect(isActivity({ type: 'Note', content: 'x' })).toBe(true);
  expect(isActivity({ type: 'post', content: 'x' })).toBe(false);
  expect(isActivity([1])).toBe(false);
});

// Objects after the examples of Video, Follow and Person in the ActivityStreams 2.0 Vocabulary (2017), written down from memory.
describe('takeActivity, beside messages', () => {
  it('reads a video with a name as an item', () => {
    const video = {
      type: 'Video',
      id: 'https://reel.example/v/1',
      name: 'Puppy Plays With Ball',
      attributedTo: 'https://reel.example/users/sally',
      published: '2026-03-01T10:00:00Z',
      views: 12,
    };
    expect(everything(video).items).toEqual([
      {
        key: 'https://reel.example/v/1',
        title: 'Puppy Plays With Ball',
        channelHandle: 'sally@reel.example',
        channelName: null,
        text: '',
        time: Date.UTC(2026, 2, 1, 10),
        link: null,
        numbers: { views: 12 },
        attributes: { type: 'Video' },
      },
    ]);
    expect(everything({ ...video, id: undefined }).reasons).toEqual(['The item has no id.']);
  });

  it('reads who follows whom, with what is told of the follower', () => {
    const person = {
      type: 'Person',
      id: 'https://hub.example/@sally',
      name: 'Sally',
      summary: '<p>On the wall</p>',
      published: '2020-05-01T00:00:00Z',
      location: { type: 'Place', name: 'Sallowmere' },
      followers: { type: 'Collection', totalItems: 41 },
    };
    const [follow] = everything({
      type: 'Follow',
      actor: person,
      object: 'https://hub.example/@john',
    }).follows;
    const profile = {
      joined: Date.UTC(2020, 4, 1),
      location: 'Sallowmere',
      description: 'On the wall',
      numbers: { followers: 41 },
      attributes: {},
    };
    expect(follow).toEqual({
      follower: 'sally@hub.example',
      followerName: 'Sally',
      followed: 'john@hub.example',
      profile,
    });
    expect(everything(person).profiles).toEqual([
      { row: 1, handle: 'sally@hub.example', name: 'Sally', profile },
    ]);
    expect(everything({ type: 'Follow', actor: person }).reasons).toEqual([
      'The Follow does not say who is followed.',
    ]);
  });
});
