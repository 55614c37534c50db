import { tellingTo } from './telling';

function output(isTTY: boolean) {
  const written: string[] = [];
  const stream = {
    isTTY,
    columns: 20,
    write: (text: string) => written.push(text),
    clearLine: () => undefined,
    cursorTo: () => undefined,
  };
  return { written, told: tellingTo(stream as never) };
}

describe('what a command says', () => {
  it('is lines of JSON where nobody looks, one for each tenth', () => {
    const { written, told } = output(false);
    for (const share of [null, 0.01, 0.02, 0.11, 1]) told.progress('weave', share);
    told.done('end', { state: 'done' }, 'Done.');
    expect(written.map((line) => JSON.parse(line) as unknown)).toEqual([
      { event: 'progress', what: 'weave', share: null },
      { event: 'progress', what: 'weave', share: 0 },
      { event: 'progress', what: 'weave', share: 0.1 },
      { event: 'progress', what: 'weave', share: 1 },
      { event: 'end', state: 'done' },
    ]);
  });

  it('is one line that changes on a terminal, and sentences', () => {
    const { written, told } = output(true);
    told.progress('a step with a very long name', 0.5);
    told.done('end', {}, 'Done.');
    expect(written).toEqual(['a step with a very l', 'Done.\n']);
  });
});
