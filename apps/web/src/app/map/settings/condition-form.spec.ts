import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import { Condition, defaultMap, type ColumnInfo } from '@pebble/contract';
import type { MapNetwork } from '@pebble/core';
import { host, text } from '../../../testing/dom';
import { exampleNetwork } from '../../../testing/examples';
import { MapSession } from '../session/map-session';
import { ConditionForm } from './condition-form';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

const column = (name: string, type: ColumnInfo['type']): ColumnInfo => ({ name, title: name, type, how: '' });
const data: MapNetwork = {
  nodeCount: 3,
  nodes: {
    handle: ['ann', 'ben', 'cy'],
    name: ['', '', ''],
    degree: Uint32Array.of(1, 2, 3),
    tone: Float64Array.of(0, 1, 2),
    kind: ['press', '', 'press'],
  },
  edges: {},
};

describe('ConditionForm', () => {
  async function form(given: object) {
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        {
          provide: MapSession,
          useValue: {
            network: signal(
              exampleNetwork({
                columns: [column('degree', 'number'), column('tone', 'number'), column('kind', 'category')],
              }),
            ),
            data: signal(data),
            description: signal(defaultMap),
            titles: signal({}),
          },
        },
      ],
    });
    const fixture = TestBed.createComponent(ConditionForm);
    const condition = Condition.parse(given);
    fixture.componentRef.setInput('condition', condition);
    const changed = jest.fn();
    fixture.componentInstance.changed.subscribe(changed);
    await fixture.whenStable();
    const field = (label: string): HTMLInputElement =>
      host(fixture).querySelector<HTMLInputElement>(`[aria-label="${label}"]`)!;
    const set = (label: string, value: string, event = 'change'): void => {
      const box = field(label);
      box.value = value;
      box.dispatchEvent(new Event(event));
    };
    return { fixture, condition, changed, set };
  }

  it('takes bounds of a number, and an empty field as no bound', async () => {
    const { changed, condition, set } = await form({ what: 'range', column: 'degree', from: 2 });
    set('At most', '7');
    expect(changed).toHaveBeenLastCalledWith({ ...condition, until: 7 });
    set('At least', '');
    expect(changed).toHaveBeenLastCalledWith({ ...condition, from: null });
    set('At least', 'many');
    expect(changed).toHaveBeenLastCalledWith({ ...condition, from: null });
    set('Number', 'tone');
    expect(changed).toHaveBeenLastCalledWith({ ...condition, column: 'tone' });
  });

  it('offers the values of a category with how many nodes have them, also those without one', async () => {
    const { fixture, changed, condition } = await form({ what: 'values', column: 'kind', values: [] });
    expect(text(fixture)).toMatch(/press ?2/);
    expect(text(fixture)).toMatch(/without a group ?1/);
    host(fixture).querySelector<HTMLInputElement>('input[type=checkbox]')!.click();
    expect(changed).toHaveBeenCalledWith({ ...condition, values: ['press'] });
  });

  it('takes texts, core numbers and components, and refuses what makes no sense', async () => {
    const named = await form({ what: 'named', text: '' });
    named.set('Text in the name', 'shop | cafe', 'input');
    expect(named.changed).toHaveBeenCalledWith({ ...named.condition, text: 'shop | cafe' });
    TestBed.resetTestingModule();
    const core = await form({ what: 'core', atLeast: 2 });
    core.set('Core number', '0');
    expect(core.changed).not.toHaveBeenCalled();
    core.set('Core number', '3');
    expect(core.changed).toHaveBeenCalledWith({ ...core.condition, atLeast: 3 });
    TestBed.resetTestingModule();
    const parts = await form({ what: 'components', largest: 1 });
    parts.set('Components', '2');
    expect(parts.changed).toHaveBeenCalledWith({ ...parts.condition, largest: 2 });
  });

  it('names the nodes round which it looks', async () => {
    const { fixture, changed, condition, set } = await form({ what: 'near', nodes: [1], steps: 1 });
    expect(text(fixture)).toContain('round ben');
    set('Way', 'out');
    expect(changed).toHaveBeenCalledWith({ ...condition, way: 'out' });
  });
});
