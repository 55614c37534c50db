import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Cite } from '@citation-js/core';
import '@citation-js/plugin-bibtex';
import { Reference } from '@pebble/contract';
import { bibtex, referenceLines, referencesIn } from './references';
import { WORKS } from './works';

// It reads texts here, and fetches nothing.
jest.mock('node-fetch', () => ({}));

const references = WORKS.map(({ reference }) => reference);
/** Authors and a year, as sentences of steps and columns cite works. */
const CITED = /\p{Lu}\p{L}+(?:, \p{Lu}\p{L}+)*(?: et al\.| & \p{L}[\p{L} ]*?\p{L})? (?:19|20)\d{2}\b/gu;
const MONTHS = /^(January|February|March|April|May|June|July|August|September|October|November|December) /;

/** The lines of our sources that have texts in them, apart from comments and tests. */
function* written(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { recursive: true, encoding: 'utf8' })) {
    if (!entry.endsWith('.ts') || /\.spec\.ts$|testing\/|methods\/works/.test(entry)) continue;
    for (const line of readFileSync(join(folder, entry), 'utf8').split('\n'))
      if (/['`]/.test(line) && !/^\s*(\*|\/\/|\/\*)/.test(line)) yield line;
  }
}

describe('references', () => {
  it('are known of every work that a sentence or a column cites', () => {
    const folders = [join(__dirname, '..'), join(__dirname, '../../../../apps/server/src/operations')];
    const cited = new Set(
      folders
        .flatMap((folder) => [...written(folder)])
        .flatMap((line) => line.match(CITED) ?? [])
        .filter((one) => !MONTHS.test(one)),
    );
    expect(cited.size).toBeGreaterThan(30);
    expect([...cited].filter((one) => referencesIn([one]).length !== 1)).toEqual([]);
  });

  it('are those that a text cites, and no others', () => {
    const found = referencesIn([
      'Groups were found by the Leiden method (Traag, Waltman & van Eck 2019; resolution 1).',
      'Shares are those of Leicht & Newman 2008, and 2001 messages.',
    ]);
    expect(found.map(({ id }) => id)).toEqual(['leicht2008', 'traag2019']);
    expect(referencesIn(['Nothing is cited.'])).toEqual([]);
  });

  it('have the form of CSL-JSON (Citation Style Language 1.0.2), each with a key of its own', () => {
    for (const one of references) expect(Reference.parse(one)).toEqual(one);
    expect(new Set(references.map(({ id }) => id)).size).toBe(references.length);
  });

  it('are read from BibTeX as they were, by a parser that is not ours', () => {
    const { data } = new Cite(bibtex(references)) as { data: Record<string, unknown>[] };
    expect(data).toHaveLength(references.length);
    references.forEach((reference, i) => {
      const read = Object.fromEntries(Object.keys(reference).map((name) => [name, data[i][name]]));
      expect(read).toEqual({ ...reference, ...(reference.type === 'report' ? { type: 'report' } : {}) });
    });
  });

  it('are written as a list, by authors and year', () => {
    const lines = referenceLines(
      referencesIn(['Blondel et al. 2008', 'Latapy, Magnien & Del Vecchio 2008', 'Burt 1992']),
    );
    expect(lines).toEqual([
      'Blondel, V. D., Guillaume, J.-L., Lambiotte, R. & Lefebvre, E. (2008). Fast unfolding of communities in large networks. Journal of Statistical Mechanics: Theory and Experiment, 2008(10), P10008.',
      'Burt, R. S. (1992). Structural holes: the social structure of competition. Harvard University Press.',
      'Latapy, M., Magnien, C. & Del Vecchio, N. (2008). Basic notions for the analysis of large two-mode networks. Social Networks, 30(1), 31–48.',
    ]);
  });
});
