import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { ImportReport, Preview, ImportMapping } from '@pebble/contract';
import { of } from 'rxjs';
import { exampleOverview, examplePreview } from '../../testing/examples';
import { button, choose, host, spoken, text } from '../../testing/dom';
import { Api } from '../api/api';
import { Notices } from '../store/notices';
import { ImportReportView } from './import-report';
import { PasteBox } from './paste-box';
import { PreviewPanel } from './preview-panel';
import { ReadingList } from './reading-list';

const preview = examplePreview();
const { reading } = preview;

describe('PreviewPanel', () => {
  let fixture: ComponentFixture<PreviewPanel>;
  let asked: Partial<ImportMapping>[];
  const show = async (change: Partial<Preview> = {}, alike = 1): Promise<void> => {
    fixture = TestBed.createComponent(PreviewPanel);
    fixture.componentRef.setInput('preview', { ...preview, ...change });
    fixture.componentRef.setInput('alike', alike);
    asked = [];
    fixture.componentInstance.readingChanged.subscribe((part) => asked.push(part));
    await fixture.whenStable();
  };

  it('says what the file seems to be, and why', async () => {
    await show();
    expect(text(fixture)).toContain('posts.csv2 KB · A table with commas between its columns.');
  });

  it('gives a role to one column only', async () => {
    await show();
    choose(host(fixture).querySelector<HTMLSelectElement>('select[aria-label="How to read more"]')!, 'text');
    expect(asked[0].columns!.map(({ role }) => role)).toEqual(['author', 'attribute', 'text']);
  });

  it('offers the roles of what the file holds', async () => {
    await show({ reading: { ...reading, material: 'network' } });
    const options = [...host(fixture).querySelectorAll('th select')[0].querySelectorAll('option')];
    expect(options[0].textContent).toBe('from (one end of the tie)');
    expect(options.map(({ value }) => value)).not.toContain('author');
  });

  it('has the columns guessed anew when the delimiter or the meaning changes', async () => {
    await show();
    const selects = [...host(fixture).querySelectorAll<HTMLSelectElement>('.settings select')];
    choose(selects[0], selects[0].options[1].value);
    expect(asked.at(-1)).not.toHaveProperty('columns');
    expect(asked.at(-1)).not.toHaveProperty('format');
  });

  it('marks a cell that cannot be read, and says what will come of the file', async () => {
    await show({
      rows: [
        ['ann', 'hello', 'x'],
        ['', 'hello', 'y'],
      ],
      lines: [2, 3],
      problems: [{ row: 3, field: 'who', reason: 'The row has no author.' }],
      outcome: 'The file gives 1 message by or about 1 account; 1 would be skipped.',
    });
    const faults = host(fixture).querySelectorAll('td.fault');
    expect(faults).toHaveLength(1);
    expect(await spoken(faults[0])).toBe('The row has no author.');
    expect(text(fixture)).toContain('The file gives 1 message by or about 1 account; 1 would be skipped.');
  });

  it('cannot be accepted while something is missing, and says what', async () => {
    await show({ missing: ['author', 'text'] });
    expect(text(fixture)).toContain('Needed and not found: author handle and text.');
    expect(button(fixture, 'Import').disabled).toBe(true);
  });

  it('shows columns that are fixed without choices, and what will come of a network', async () => {
    await show({
      fixed: true,
      network: { nodes: 3, edges: 1, directed: false, weighted: true, nodeColumns: ['age'], edgeColumns: [] },
    });
    expect(host(fixture).querySelector('th select')).toBeNull();
    expect(text(fixture)).toContain('3 nodes and 1 tie (undirected, weighted). Columns kept beside: age.');
  });

  it('offers to take files of the same shape in together', async () => {
    await show({}, 3);
    const all = jest.fn();
    fixture.componentInstance.acceptedAll.subscribe(all);
    button(fixture, 'Import all 3 of this shape').click();
    expect(all).toHaveBeenCalledWith({ reading, asOne: false });
    button(fixture, 'As one source').click();
    expect(all).toHaveBeenLastCalledWith({ reading, asOne: true });
  });

  it('offers readings that were kept, and keeps one under a name', async () => {
    const saved = [{ id: 1, name: 'Library export', reading: { ...reading, dateForm: 'words' as const } }];
    await show({ saved });
    choose([...host(fixture).querySelectorAll<HTMLSelectElement>('.kept select')][0], 'Library export');
    expect(asked.at(-1)).toMatchObject({ dateForm: 'words' });
    const keep = jest.fn();
    fixture.componentInstance.saveAsked.subscribe(keep);
    host(fixture).querySelector<HTMLInputElement>('.kept input')!.value = 'Mine';
    host(fixture).querySelector('.kept form')!.dispatchEvent(new Event('submit'));
    expect(keep).toHaveBeenCalledWith('Mine');
  });

  it('lists what cannot be read, with line and field', async () => {
    await show({ problems: [{ row: 7, field: 'time', reason: 'The date cannot be read: “never”.' }] });
    expect(text(fixture)).toContain('Line 7 , time : The date cannot be read: “never”.');
  });
});

describe('PasteBox', () => {
  it('makes a table of what is pasted, lets it be corrected, and hands it on', async () => {
    const fixture = TestBed.createComponent(PasteBox);
    const pasted = jest.fn();
    fixture.componentInstance.pasted.subscribe(pasted);
    await fixture.whenStable();
    expect(button(fixture, 'Look at it').disabled).toBe(true);
    const area = host(fixture).querySelector('textarea')!;
    area.value = 'author\ttext\nann\thelo\n';
    area.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    expect(text(fixture)).toContain('1 rows under a row of headings');
    const cell = host(fixture).querySelector<HTMLInputElement>('input[aria-label="Row 2, column 2"]')!;
    cell.value = 'hello';
    cell.dispatchEvent(new Event('change'));
    button(fixture, 'Look at it').click();
    expect(pasted).toHaveBeenCalledWith('author\ttext\nann\thello');
  });

  it('can be begun anew and closed', async () => {
    const fixture = TestBed.createComponent(PasteBox);
    const closed = jest.fn();
    fixture.componentInstance.closed.subscribe(closed);
    await fixture.whenStable();
    const area = host(fixture).querySelector('textarea')!;
    area.value = 'a\tb\n1\t2';
    area.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    button(fixture, 'Paste anew').click();
    await fixture.whenStable();
    expect(host(fixture).querySelector('textarea')).not.toBeNull();
    button(fixture, 'Close').click();
    expect(closed).toHaveBeenCalled();
  });
});

describe('ImportReportView', () => {
  const report: ImportReport = {
    source: 1,
    file: 'council.mbox',
    unit: 'email',
    read: 12,
    kept: 10,
    skipped: 2,
    skippedByReason: [{ reason: 'The date cannot be read', rows: 2 }],
    duplicates: 0,
    duplicatesInFile: 0,
    undated: 1,
    accountsNew: 4,
    accountsKnown: 1,
    authors: 3,
    mentions: 0,
    hashtags: 0,
    links: 5,
    parentsMissing: 0,
    items: 0,
    itemsAgain: 0,
    itemsMissing: 0,
    follows: 0,
    followsAgain: 0,
    profiles: 0,
    from: Date.UTC(2026, 2, 1),
    until: Date.UTC(2026, 2, 3),
    notes: ['1 messages have no date; they stand in no period.'],
  };

  it('says what was read in the words of the material, and links the list of what was skipped', async () => {
    const fixture = TestBed.createComponent(ImportReportView);
    fixture.componentRef.setInput('report', report);
    fixture.componentRef.setInput('study', 's');
    fixture.componentRef.setInput('step', 9);
    await fixture.whenStable();
    expect(text(fixture)).toContain('emails read12');
    expect(text(fixture)).toContain(
      '1 March 2026 to 3 March 2026 (UTC). 4 accounts are new, 1 were known. 1 messages have no date',
    );
    expect(text(fixture)).toContain('2 × The date cannot be read');
    expect(host(fixture).querySelector('a')!.getAttribute('href')).toBe('/api/v1/studies/s/skipped/9');
  });
});

describe('ReadingList', () => {
  const api = {
    messages: jest.fn(() => of({ total: 0, offset: 0, messages: [] })),
    filters: () => of([]),
    codebook: () => of({ codes: [], coders: [], samples: [] }),
  };
  beforeEach(() =>
    TestBed.configureTestingModule({
      providers: [
        { provide: Api, useValue: api },
        { provide: Notices, useValue: {} },
      ],
    }),
  );

  it('draws a sample with the next seed each time, and lets it go', async () => {
    const fixture = TestBed.createComponent(ReadingList);
    fixture.componentRef.setInput('study', 's');
    fixture.componentRef.setInput('overview', exampleOverview);
    fixture.componentRef.setInput('filter', { text: 'lamp' });
    await fixture.whenStable();
    button(fixture, 'Random 50').click();
    await fixture.whenStable();
    expect(fixture.componentInstance.filter()).toEqual({ text: 'lamp', sample: 50, seed: 1 });
    button(fixture, 'Draw another').click();
    await fixture.whenStable();
    expect(fixture.componentInstance.filter().seed).toBe(2);
    expect(text(fixture)).toContain('random sample of 50, seed 2');
    button(fixture, '✕').click();
    await fixture.whenStable();
    expect(fixture.componentInstance.filter().sample).toBeUndefined();
    button(fixture, 'Show all').click();
    expect(fixture.componentInstance.filter()).toEqual({});
  });

  it('of marked messages is read again when a mark is saved, and any other is not', async () => {
    const fixture = TestBed.createComponent(ReadingList);
    const show = async (inputs: Record<string, unknown>): Promise<number> => {
      api.messages.mockClear();
      for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
      await fixture.whenStable();
      return api.messages.mock.calls.length;
    };
    await show({ study: 's', overview: exampleOverview, filter: { marked: 'starred' }, marks: 1 });
    expect(await show({ marks: 2 })).toBe(1);
    await show({ filter: {} });
    expect(await show({ marks: 3 })).toBe(0);
  });
});
