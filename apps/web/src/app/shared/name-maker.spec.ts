import { Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { of } from 'rxjs';
import { button, choose, host, text } from '../../testing/dom';
import { exampleMessage, exampleStep } from '../../testing/examples';
import { Api } from '../api/api';
import { MessageText } from './message-text';
import { NameMaker } from './name-maker';
import { Notices } from '../store/notices';

@Component({
  imports: [MessageText, NameMaker],
  template: `<section><pt-message-text [message]="message" /><pt-name-maker study="s" /></section>
    <p>Elsewhere</p>`,
})
class Page {
  protected readonly message = exampleMessage({ text: 'The Lighting Board met.', spans: [] });
}

describe('NameMaker', () => {
  const api = { step: jest.fn(() => of(exampleStep({ sentence: '1 name of a list was looked for.' }))) };
  const notices = { say: jest.fn() };
  async function page() {
    TestBed.configureTestingModule({
      providers: [
        { provide: Api, useValue: api },
        { provide: Notices, useValue: notices },
      ],
    });
    const fixture = TestBed.createComponent(Page);
    document.body.append(host(fixture));
    await fixture.whenStable();
    const select = async (selector: string, from: number, until: number): Promise<void> => {
      const node = document
        .createTreeWalker(host(fixture).querySelector(selector)!, NodeFilter.SHOW_TEXT)
        .nextNode()!;
      document.getSelection()!.setBaseAndExtent(node, from, node, until);
      document.dispatchEvent(new Event('selectionchange'));
      await fixture.whenStable();
    };
    return { fixture, select };
  }
  afterEach(() => document.body.replaceChildren());

  it('makes a name of what is selected in a text, and looks for it in all messages', async () => {
    const { fixture, select } = await page();
    const start = host(fixture).querySelector('pt-message-text')!.textContent.indexOf('Lighting');
    await select('pt-message-text', start, start + 'Lighting Board'.length);
    expect(text(fixture)).toContain('Make Lighting Board a name');
    choose(host(fixture).querySelector('select')!, 'organisation');
    await fixture.whenStable();
    button(fixture, 'Find it').click();
    expect(api.step).toHaveBeenCalledWith('s', 'find-names', {
      by: 'list',
      names: ['Lighting Board'],
      match: 'words',
      kind: 'organisation',
    });
    expect(notices.say).toHaveBeenCalledWith('1 name of a list was looked for.');
    await fixture.whenStable();
    expect(text(fixture)).not.toContain('a name');
  });

  it('leaves selections elsewhere alone', async () => {
    const { fixture, select } = await page();
    await select('p', 0, 5);
    expect(text(fixture)).not.toContain('a name');
  });
});
