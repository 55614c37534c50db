import { referencesIn, referenceTo } from './memo-references';

const day = (text: string): number => Date.parse(`${text}T00:00:00Z`);

describe('what a memo points at', () => {
  it('is accounts, messages and days, each once, in its order', () => {
    const memo = `Led by @pale_notes; see ${referenceTo(12)} of 2026-04-01, and @pale_notes again. Quiet from 2026-04-02 to 2026-04-07.`;
    expect(referencesIn(memo)).toEqual([
      { what: 'node', name: 'pale_notes' },
      { what: 'message', message: 12 },
      { what: 'days', words: '2026-04-01', from: day('2026-04-01'), until: day('2026-04-02') },
      { what: 'days', words: '2026-04-02 to 2026-04-07', from: day('2026-04-02'), until: day('2026-04-08') },
    ]);
  });

  it('is no full stop behind a handle, but a host', () => {
    expect(
      referencesIn('ask @ann. Or @ben@hub.example, or @رهف').map((one) => 'name' in one && one.name),
    ).toEqual(['ann', 'ben@hub.example', 'رهف']);
  });

  it('is nothing where days are none', () => {
    expect(referencesIn('2026-13-45, 2026-04-07 to 2026-04-01, a mail: message 12')).toEqual([]);
    expect(referencesIn('')).toEqual([]);
  });
});
