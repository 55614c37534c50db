import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import type { FullPortrait, Network } from '@pebble/contract';
import { Portraits } from '../common/portraits';

/** The head of a portrait: its title, and where it stands among the others. */
@Component({
  selector: 'pt-portrait-head',
  imports: [MatButton, MatFormField, MatInput, MatTooltip, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-form-field class="title"
      ><input
        matInput
        maxlength="100"
        [attr.aria-label]="'Title of ' + title()"
        [matTooltip]="title()"
        [value]="portrait()?.notes?.title ?? ''"
        [placeholder]="portrait()?.suggested ?? title()"
        (change)="called.emit($any($event.target).value)"
    /></mat-form-field>
    <span class="place">
      <button
        matButton
        class="small"
        [disabled]="isFirst()"
        [attr.aria-label]="'Move ' + title() + ' to the left'"
        (click)="moved.emit(-1)"
      >
        ←
      </button>
      <button
        matButton
        class="small"
        [disabled]="isLast()"
        [attr.aria-label]="'Move ' + title() + ' to the right'"
        (click)="moved.emit(1)"
      >
        →
      </button>
      @if (column() === 'community') {
        <a
          [routerLink]="['/studies', network().study, 'map', network().id]"
          [queryParams]="{ community: group() }"
          >on the map</a
        >
      }
      <button matButton class="small" [attr.aria-label]="'Hide ' + title()" (click)="hidden.emit()">
        Hide
      </button>
    </span>
  `,
  styles: `
    .title {
      width: 100%;
    }
    .title input,
    .title input::placeholder {
      font: 600 16px/1.3 var(--serif);
      color: var(--ink);
      opacity: 1;
    }
    .place {
      display: flex;
      align-items: center;
      gap: 4px;
      font-weight: 400;
      font-size: 12px;
    }
    .place a {
      flex: 1;
    }
    .small {
      font-size: 12px;
      font-weight: 400;
      min-width: 28px;
    }
  `,
})
export class PortraitHead {
  readonly network = input.required<Network>();
  readonly column = input.required<string>();
  readonly group = input.required<string>();
  /** Null while it is on its way. */
  readonly portrait = input.required<FullPortrait | null>();
  readonly isFirst = input.required<boolean>();
  readonly isLast = input.required<boolean>();
  /** What was written as its title; empty for the one that suggests itself. */
  readonly called = output<string>();
  /** By one place to the left or to the right. */
  readonly moved = output<1 | -1>();
  readonly hidden = output();
  private readonly portraits = inject(Portraits);
  protected readonly title = computed(() => this.portraits.titleOf(this.group()));
}
