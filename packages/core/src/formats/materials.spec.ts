import type {
  IncomingFollow,
  IncomingItem,
  IncomingMessage,
  IncomingProfile,
  Preview,
  SkippedRow,
} from '@pebble/contract';
import { followedByFileName } from './follows';
import { previewFile } from './preview/preview';
import { sourceReader } from './sourceReader';

async function look(name: string, text: string): Promise<Preview> {
  const bytes = new TextEncoder().encode(text);
  return previewFile({ name, head: bytes, size: bytes.length, whole: () => bytes });
}

/** Everything that a file gives when it is read as its preview proposes. */
async function read(name: string, text: string) {
  const found = {
    messages: [] as IncomingMessage[],
    items: [] as IncomingItem[],
    follows: [] as IncomingFollow[],
    profiles: [] as IncomingProfile[],
    skipped: [] as SkippedRow[],
  };
  const { reading } = await look(name, text);
  const reader = sourceReader(reading, name, {
    message: (one) => void found.messages.push(one),
    item: (one) => void found.items.push(one),
    follow: (one) => void found.follows.push(one),
    profile: (one) => void found.profiles.push(one),
    skip: (one) => void found.skipped.push(one),
  });
  await reader.write(text);
  await reader.end();
  return { ...found, material: reading.material };
}

describe('what a table is taken for', () => {
  it.each([
    ['posts.csv', 'id,author,text\n1,ann,hello there\n', 'messages'],
    ['comments.csv', 'comment_id,video_id,author,text\n1,v1,ann,nice\n', 'messages'],
    ['videos.csv', 'video_id,title,channel,views\nv1,Lamps,quay,12\n', 'items'],
    ['ties.csv', 'source,target,weight\na,b,2\n', 'network'],
    ['list.csv', 'follower,followed\nann,ben\n', 'follows'],
    ['followers of ben.csv', 'handle,followers,joined\nann,12,2020-01-01\n', 'follows'],
    [
      'people.csv',
      'handle,followers,bio\nann,12,I watch the lamps of the town at night and write about it\n',
      'accounts',
    ],
    ['sheet.csv', 'name,May meeting,June meeting\nann,yes,no\nben,no,Yes\n', 'two-mode'],
    // One cell in forty that is none of these is a slip, and named as one.
    ['sheet.csv', `name,a,b\n${'ann,yes,no\n'.repeat(20)}ben,perhaps,no\n`, 'two-mode'],
    ['tags.csv', 'account,hashtags\nann,wall;lamp\n', 'two-mode'],
    ['groups.csv', 'node,group\nann,pilots\n', 'groups'],
    ['groups.txt', 'pilots\nmoths\npilots\nmoths\n', 'groups'],
  ])('%s', async (name, text, material) => {
    expect((await look(name, text)).reading.material).toBe(material);
  });
});

describe('what comes of a file', () => {
  it.each([
    [
      'posts.csv',
      'id,author,text\n1,ann,hello\n2,ben,there\n3,,nobody\n',
      'The file gives 2 messages by or about 2 accounts; 1 would be skipped.',
    ],
    [
      'videos.csv',
      'video_id,title,channel,views\nv1,Lamps,quay,1\n',
      'The file gives 1 item by or about 1 account.',
    ],
    [
      'list.csv',
      'follower,followed\nann,ben\ncleo,ben\n',
      'The file gives 2 ties of following by or about 3 accounts.',
    ],
    ['people.csv', 'handle,bio\nann,Hi\n', 'The file gives 1 profile by or about 1 account.'],
    ['posts.csv', 'id,author,text\n1,,hello\n', null],
  ])('%s', async (name, text, outcome) => {
    expect((await look(name, text)).outcome).toBe(outcome);
  });

  it('tells of the first rows only where there are more', async () => {
    const rows = Array.from({ length: 300 }, (_, i) => `${i},ann${i % 7},hello`).join('\n');
    const { outcome, lines } = await look('posts.csv', `id,author,text\n${rows}\n`);
    expect(outcome).toBe('The first 200 rows give 200 messages by or about 7 accounts.');
    expect(lines).toEqual([2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13]);
  });
});

describe('comments and their items', () => {
  it('ties a comment to its item, with the title where the row tells it', async () => {
    const text =
      'comment_id,video_id,video_title,author,text,parent_id\n' +
      'c1,v1,Lamps at dusk,ann,Lovely,\nc2,v1,Lamps at dusk,ben,Is it,c1\n';
    const { messages, items } = await read('comments.csv', text);
    expect(messages.map(({ kind, itemKey, parentKey }) => [kind, itemKey, parentKey])).toEqual([
      ['comment', 'v1', null],
      ['reply', 'v1', 'c1'],
    ]);
    expect(items.map(({ key, title }) => [key, title])).toEqual([['v1', 'Lamps at dusk']]);
  });

  it('reads items with channel, date and counts, and says what is missing', async () => {
    const text =
      'video_id,title,channel,published_at,views\n' +
      'v1,Lamps,@quay,2026-03-01,120\n,No id,quay,,1\nv3,,quay,,1\nv4,Late,quay,soon,1\n';
    const { items, skipped } = await read('videos.csv', text);
    expect(items).toEqual([
      {
        key: 'v1',
        title: 'Lamps',
        channelHandle: 'quay',
        channelName: null,
        text: '',
        time: Date.UTC(2026, 2, 1),
        link: null,
        numbers: { views: 120 },
        attributes: {},
      },
    ]);
    expect(skipped.map(({ row, reason }) => `${row} ${reason}`)).toEqual([
      '3 The row has no id.',
      '4 The row has no title.',
      '5 The date cannot be read: “soon”.',
    ]);
  });
});

describe('follower lists and account details', () => {
  it('takes who is followed from a column', async () => {
    const { follows, skipped } = await read('list.csv', 'follower,followed\n@ann,Ben\nben,ben\n,ben\n');
    expect(follows).toEqual([{ follower: 'ann', followerName: null, followed: 'Ben', profile: null }]);
    expect(skipped.map(({ reason }) => reason)).toEqual([
      'The account would follow itself.',
      'The row names no follower.',
    ]);
  });

  it('takes who is followed from the name of the file, and what is told of the followers', async () => {
    const text = 'handle,name,followers,location,joined\nann,Ann H.,12,Sallowmere,2020-01-05\n';
    const { follows } = await read('followers-of-harbour_post.csv', text);
    expect(follows).toEqual([
      {
        follower: 'ann',
        followerName: 'Ann H.',
        followed: 'harbour_post',
        profile: {
          joined: Date.UTC(2020, 0, 5),
          location: 'Sallowmere',
          description: null,
          numbers: { followers: 12 },
          attributes: {},
        },
      },
    ]);
  });

  it.each([
    ['followers of harbour_post.csv', 'harbour_post'],
    ['lists/harbour_post followers.xlsx', 'harbour_post'],
    ['@harbour_post.csv', 'harbour_post'],
    ['my best list.csv', ''],
  ])('%s lists the followers of “%s”', (file, followed) => {
    expect(followedByFileName(file)).toBe(followed);
  });

  it('keeps counts beyond 2^53 as they are written', async () => {
    const text = 'handle,followers,bio\nann,90071992547409931,I am here\n';
    const { profiles } = await read('people.csv', text);
    expect(profiles[0]).toMatchObject({ handle: 'ann', profile: { description: 'I am here' } });
    expect(profiles[0].profile.numbers).toEqual({ followers: '90071992547409931' });
  });
});
