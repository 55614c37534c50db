import { TestBed } from '@angular/core/testing';
import type { Message, TextSpan } from '@pebble/contract';
import { findSpans } from '@pebble/core';
import { MessageText } from './message-text';

function message(text: string, more: TextSpan[] = []): Message {
  return {
    id: 1,
    key: '1',
    source: 's',
    author: { id: 1, handle: 'ann', name: null },
    subject: null,
    text,
    spans: [...findSpans(text), ...more],
    time: null,
    kind: 'post',
    parent: null,
    addressed: [],
    link: null,
    numbers: {},
    attributes: {},
    item: null,
    language: null,
    starred: false,
    note: null,
    scores: [],
  };
}

async function show(text: string, marked: string[] = []) {
  const fixture = TestBed.createComponent(MessageText);
  fixture.componentRef.setInput('message', message(text));
  fixture.componentRef.setInput('marked', marked);
  await fixture.whenStable();
  return { fixture, element: fixture.nativeElement as HTMLElement };
}

describe('MessageText', () => {
  it('shows the whole text, and markup only as text', async () => {
    const text = '<img src=x onerror=alert(1)> @ann said #hello, see https://x.example/a';
    const { element } = await show(text);
    expect(element.textContent?.trim()).toBe(text);
    expect(element.querySelector('img, a, script')).toBeNull();
  });

  it('makes mentions and hashtags buttons that say what they are', async () => {
    const { fixture, element } = await show('@ann #hello');
    const clicked: TextSpan[] = [];
    fixture.componentInstance.spanClicked.subscribe((span) => clicked.push(span));
    element.querySelectorAll('button').forEach((button) => button.click());
    expect(clicked.map(({ what, key }) => [what, key])).toEqual([
      ['mention', 'ann'],
      ['hashtag', 'hello'],
    ]);
  });

  it('marks the handles of the selection', async () => {
    const { element } = await show('@Ann and @bob', ['ann']);
    expect([...element.querySelectorAll('.matched')].map((e) => e.textContent)).toEqual(['@Ann']);
  });

  it('marks what is looked at wherever it stands, in whatever case, and keeps the text whole', async () => {
    const text = 'The lighting board and the Lighting Board met. #LightingBoard';
    const { fixture, element } = await show(text);
    fixture.componentRef.setInput('found', 'Lighting Board');
    await fixture.whenStable();
    expect([...element.querySelectorAll('.found')].map((mark) => mark.textContent)).toEqual([
      'lighting board',
      'Lighting Board',
    ]);
    expect(element.textContent?.trim()).toBe(text);
    fixture.componentRef.setInput('found', '#lightingboard');
    await fixture.whenStable();
    expect(element.querySelector('button')?.classList).toContain('matched');
    expect(element.querySelector('.found')).toBeNull();
  });
});
