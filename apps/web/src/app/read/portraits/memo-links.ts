import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Network } from '@pebble/contract';
import { map } from 'rxjs';
import { Api } from '../../api/api';
import type { Behind } from '../common/messages-behind';
import { referencesIn, type Reference } from './memo-references';

/** What a memo points at, to be opened: accounts on the map, messages, and what was written on its days. */
@Component({
  selector: 'pt-memo-links',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (one of references(); track $index) {
      @switch (one.what) {
        @case ('node') {
          <a [routerLink]="['/studies', network().study, 'map', network().id]" [queryParams]="{ node: one.name }">&#64;{{ one.name }}</a>
        }
        @case ('message') {
          <button class="evidence" (click)="open(one)">message {{ one.message }}</button>
        }
        @case ('days') {
          <button class="evidence" (click)="open(one)">{{ one.words }}</button>
        }
      }
    }
    @if (memo() === '') {
      <p class="faint">&#64;account, a day like 2026-04-01, and messages that are cited become links.</p>
    }
  `,
  styleUrl: '../common/cells.scss',
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      align-items: baseline;
      gap: 2px 10px;
      font-size: 13px;
    }
  `,
})
export class MemoLinks {
  readonly network = input.required<Network>();
  readonly memo = input.required<string>();
  readonly opened = output<Behind>();
  private readonly api = inject(Api);
  protected readonly references = computed(() => referencesIn(this.memo()));

  protected open(one: Reference): void {
    const study = this.network().study;
    if (one.what === 'message')
      this.opened.emit({
        words: `Message ${one.message}`,
        where: 'With what it answers, and what answers it',
        page: () =>
          this.api.thread({ study, message: one.message }).pipe(
            map(({ total, messages }) => ({
              total,
              offset: 0,
              messages: messages.map(({ message }) => message),
            })),
          ),
      });
    if (one.what === 'days')
      this.opened.emit({
        words: one.words,
        where: 'In the study',
        page: (offset, limit) =>
          this.api.setMessages(
            { study },
            {
              set: { what: 'filter', filter: { from: one.from, until: one.until } },
              without: null,
              offset,
              limit,
            },
          ),
      });
  }
}
