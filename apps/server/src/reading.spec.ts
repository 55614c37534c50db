import type { Message, MessagePage, SavedFilter, Step, Thread, Timeline } from '@pebble/contract';
import { startedApplication } from './testing/application';

const app = startedApplication();
let messages: Message[] = [];
const id = (key: string): number => messages.find((one) => one.key === key)!.id;
const keys = (thread: Thread): string[] =>
  thread.messages.map(({ depth, message }) => `${'-'.repeat(depth)}${message.key}`);
const read = async (query: object = {}) => (await app.get<MessagePage>('messages', query)).messages;

beforeAll(async () => {
  const rows = [
    '1,ann,2026-03-01T10:00:00Z,The lamps on the wall are far too bright for the moths,',
    '2,ben,2026-03-01T12:00:00Z,But people have to walk home late at night,1',
    '3,cleo,2026-03-01T11:00:00Z,Les lampes du quai sont trop fortes pour les papillons,1',
    '4,ann,2026-03-02T10:00:00Z,That is what the amber light is meant for,2',
    '5,dora,2026-03-02T11:00:00Z,ok,77',
    '6,eve,2026-03-03T10:00:00Z,This one answers the next one in a circle,7',
    '7,eve,2026-03-03T11:00:00Z,And this one answers the one before it,6',
    '8,fay,2026-03-03T11:00:00Z,This message answers itself and nobody else,8',
  ];
  await app.take('thread.csv', `id,author,time,text,in_reply_to\n${rows.join('\n')}\n`);
  messages = await read();
}, 60_000);

describe('a thread', () => {
  const thread = (key: string) => app.get<Thread>(`messages/${id(key)}/thread`);

  it('holds every answer under the message that it answers, by time', async () => {
    const whole = await thread('4');
    expect(keys(whole)).toEqual(['1', '-3', '-2', '--4']);
    expect(whole).toMatchObject({ total: 4, beginsBefore: false, circular: false });
    expect(keys(await thread('1'))).toEqual(keys(whole));
  });

  it('says when it begins before what was collected', async () => {
    expect(await thread('5')).toMatchObject({ total: 1, beginsBefore: true });
  });

  it('ends where messages answer each other in a circle', async () => {
    const circle = await thread('7');
    expect(circle.circular).toBe(true);
    expect(keys(circle)).toEqual(['6', '-7']);
    expect(keys(await thread('8'))).toEqual(['8']);
  });

  it('is not there for a message that is not', () =>
    app.api.get(`/api/v1/studies/${app.study}/messages/999999/thread`).expect(404));
});

describe('languages', () => {
  const settled = async () => {
    for (let i = 0; i < 100; i++) {
      const { steps } = await app.get<{ steps: Step[] }>('logbook');
      const step = steps.find(({ kind }) => kind === 'detect-languages');
      if (step?.state === 'done') return step;
      await new Promise((done) => setTimeout(done, 50));
    }
    throw new Error('The languages were not found.');
  };

  it('are found after an import, and the list can be asked for one', async () => {
    expect((await settled()).result).toMatchObject({ messages: 8, given: 0 });
    expect((await read({ language: 'fr' })).map(({ key }) => key)).toEqual(['3']);
    expect((await read({ language: 'und' })).map(({ key }) => key)).toEqual(['5']);
  });

  it('can be corrected by hand', async () => {
    await app.step('set-language', { message: id('5'), language: 'en' }).expect(200);
    const [corrected] = await read({ text: 'ok' });
    expect(corrected.language).toEqual({ code: 'en', how: 'by hand' });
    await app.step('set-language', { message: id('5'), language: 'not a language' }).expect(400);
  });
});

describe('marks and kept filters', () => {
  it('keeps stars and notes on messages, and takes them away again', async () => {
    await app.step('mark-message', { message: id('2'), starred: true, note: 'for chapter 3' }).expect(200);
    await app.step('mark-message', { message: id('3'), starred: false, note: 'translate' }).expect(200);
    expect((await read({ marked: 'starred' })).map(({ key, note }) => [key, note])).toEqual([
      ['2', 'for chapter 3'],
    ]);
    expect((await read({ marked: 'noted' })).map(({ key }) => key)).toEqual(['3', '2']);
    await app.step('mark-message', { message: id('3'), starred: false, note: '' }).expect(200);
    expect((await read({ marked: 'noted' })).map(({ key }) => key)).toEqual(['2']);
    await app.step('mark-message', { message: 999_999, starred: true, note: '' }).expect(404);
  });

  it('keeps a filter under a name, anew when it is kept again', async () => {
    const saved = () => app.get<SavedFilter[]>('filters');
    await app.step('save-filter', { name: 'Night', filter: { text: 'night' } }).expect(200);
    await app.step('save-filter', { name: 'Night', filter: { text: 'night', kind: 'reply' } }).expect(200);
    const [filter, ...others] = await saved();
    expect(filter).toMatchObject({ name: 'Night', filter: { text: 'night', kind: 'reply' } });
    expect(others).toEqual([]);
    await app.step('forget-filter', { id: filter.id, name: filter.name }).expect(200);
    expect(await saved()).toEqual([]);
  });
});

it('parts the time chart by kind, and the parts add up to the whole', async () => {
  const line = await app.get<Timeline>('timeline', { by: 'kind' });
  expect(line.parts.map(({ name }) => name)).toEqual(['reply', 'post']);
  line.counts.forEach((count, i) =>
    expect(line.parts.reduce((sum, part) => sum + part.counts[i], 0)).toBe(count),
  );
  expect((await app.get<Timeline>('timeline')).parts).toEqual([]);
});

describe('scores', () => {
  const score = async (scorer: string): Promise<Step> =>
    (await app.step('score-messages', { scorer }).expect(200)).body as Step;

  it('are given to messages in a language that the scorer understands, and can be read by', async () => {
    await app.take(
      'tempers.csv',
      [
        'id,author,time,text,lang',
        't1,ann,2026-04-01T10:00:00Z,Shut up you idiot nobody asked you about the lamps,en',
        't2,ben,2026-04-01T11:00:00Z,What a wonderful and lovely evening under the lamps,en',
        't3,cleo,2026-04-01T12:00:00Z,Quelle soirée magnifique sous les lampes du quai,fr',
        '',
      ].join('\n'),
    );
    // Languages are found in a step that follows the import.
    for (let i = 0; i < 100 && (await read({ text: 'evening' }))[0]?.language === null; i++)
      await new Promise((done) => setTimeout(done, 50));
    const step = await score('incivility');
    expect(step.result).toMatchObject({ messages: 11 });
    expect(step.sentence).toContain('in a language it understands (en)');
    await score('tone');
    const uncivil = await read({ scored: 'incivility', scoreFrom: 0.7 });
    expect(uncivil.map(({ key }) => key)).toEqual(['t1']);
    const [{ text, spans, scores }] = uncivil;
    const marks = spans.filter(({ what }) => what === 'score');
    expect(marks.map(({ start, end }) => text.slice(start, end))).toEqual(['Shut up', 'idiot']);
    expect(scores.map(({ scorer }) => scorer)).toEqual(['tone', 'incivility']);
    expect((await read({ scored: 'tone', scoreFrom: 0.4 })).map(({ key }) => key)).toEqual(['t2']);
    const french = (await read({ text: 'magnifique' }))[0];
    expect(french.scores).toEqual([]);
    expect((await app.get<{ scorers: string[] }>('overview')).scorers).toEqual(['tone', 'incivility']);
  });

  it('are given anew when they are asked for again', async () => {
    const before = await read({ scored: 'tone' });
    const again = await score('tone');
    expect(again.state).toBe('done');
    expect((await read({ scored: 'tone' })).map(({ scores }) => scores)).toEqual(
      before.map(({ scores }) => scores),
    );
  });
});
