import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { Moments } from '../../shared/moments';
import { moment } from '../../shared/words';

/** What the researcher marks in time: it stands on every axis of time of the study. */
@Component({
  selector: 'pt-moments-panel',
  imports: [FormsModule, MatButton, MatFormField, MatInput],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="soft">
      A vote, a storm, a rule that changed: what is marked here stands on every chart of time in this study.
    </p>
    <form (ngSubmit)="add()">
      <mat-form-field class="when"
        ><input matInput type="datetime-local" name="when" aria-label="When (UTC)" [(ngModel)]="when"
      /></mat-form-field>
      <span class="soft">UTC</span>
      <mat-form-field class="what"
        ><input matInput name="name" maxlength="80" placeholder="what happened" aria-label="What happened" [(ngModel)]="name"
      /></mat-form-field>
      <button matButton="outlined" type="submit" [disabled]="!time() || name().trim() === ''">Mark</button>
    </form>
    @if (moments.changing.problem(); as problem) {
      <p class="error" role="alert">{{ problem }}</p>
    }
    <ul aria-label="Moments">
      @for (one of moments.all(); track one.id) {
        <li>
          <span class="name" dir="auto">{{ one.name }}</span>
          <span class="soft">{{ moment(one.time) }}</span>
          <button matButton class="small" [attr.aria-label]="'Take away ' + one.name" (click)="moments.forget(one)">
            Take away
          </button>
        </li>
      } @empty {
        <li class="faint">No moments are marked yet.</li>
      }
    </ul>
  `,
  styleUrl: '../common/cells.scss',
  styles: `
    form {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 10px;
      margin: 10px 0;
    }
    .when {
      width: 220px;
    }
    .what {
      width: 300px;
    }
    ul {
      max-width: 680px;
    }
  `,
})
export class MomentsPanel {
  protected readonly moments = inject(Moments);
  protected readonly moment = moment;
  protected readonly when = signal('');
  protected readonly name = signal('');

  /** Milliseconds since 1970; 0 where no time is typed. */
  protected time(): number {
    const time = Date.parse(`${this.when()}:00Z`);
    return Number.isNaN(time) ? 0 : time;
  }

  protected add(): void {
    if (!this.time() || this.name().trim() === '') return;
    this.moments.mark(this.time(), this.name().trim());
    this.name.set('');
  }
}
