import { ChangeDetectionStrategy, Component, computed, inject, input, model, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { MessageFilter, SavedFilter } from '@pebble/contract';
import { Api } from '../api/api';
import { latest } from '../shared/latest';
import { Notices } from '../store/notices';

/** Filters of the reading list that were kept under a name: choose, keep, forget. */
@Component({
  selector: 'pt-kept-filters',
  imports: [MatInput, MatFormField, MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (kept of filters() ?? []; track kept.id) {
      <span class="kept">
        <button matButton (click)="filter.set(kept.filter)">{{ kept.name }}</button>
        <button matButton class="small" [attr.aria-label]="'Forget the filter ' + kept.name" (click)="forget(kept)">
          ✕
        </button>
      </span>
    }
    @if (active()) {
      @if (naming()) {
        <form (submit)="keep(name.value); $event.preventDefault()">
          <mat-form-field><input matInput #name maxlength="100" placeholder="name of the filter" aria-label="Name of the filter" /></mat-form-field>
          <button matButton="outlined">Keep</button>
        </form>
      } @else {
        <button matButton (click)="naming.set(true)">Keep this filter</button>
      }
    }
  `,
  styles: `
    :host,
    form {
      display: inline-flex;
      gap: 6px;
      align-items: center;
    }
    .kept {
      border: 1px solid var(--line);
      border-radius: 20px;
      padding: 0 6px;
      font-size: 13px;
      white-space: nowrap;
    }
  `,
})
export class KeptFilters {
  readonly study = input.required<string>();
  readonly filter = model.required<MessageFilter>();
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  protected readonly naming = signal(false);
  private readonly changes = signal(0);
  protected readonly active = computed(() =>
    Object.values(this.filter()).some((value) => value !== undefined && value !== ''),
  );
  private readonly asked = computed(() => ({ study: this.study(), changes: this.changes() }));
  protected readonly filters = latest(this.asked, ({ study }) => this.api.filters({ study }));

  protected keep(name: string): void {
    if (name.trim() === '') return;
    this.naming.set(false);
    this.change(this.api.step(this.study(), 'save-filter', { name: name.trim(), filter: this.filter() }));
  }

  protected forget({ id, name }: SavedFilter): void {
    this.change(this.api.step(this.study(), 'forget-filter', { id, name }));
  }

  private change(step: ReturnType<Api['step']>): void {
    step.subscribe({
      next: () => this.changes.update((n) => n + 1),
      error: (error: Error) => this.notices.say(error.message),
    });
  }
}
