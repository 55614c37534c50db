import { ChangeDetectionStrategy, Component, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { KeptLook, Look } from '@pebble/contract';
import { lookOf, SHIPPED_LOOKS, withLook } from '@pebble/core';
import { Api } from '../../api/api';
import { stepRun } from '../../shared/step-run';
import { MapSession } from '../session/map-session';
import { Busy } from '../../shared/busy';

/** Looks that come with the application, and those that were kept by name; each can be put on the map. */
@Component({
  selector: 'pt-looks-panel',
  imports: [MatInput, MatFormField, MatButton, Busy, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>Looks <button matButton (click)="closed.emit()">Close</button></h3>
    <ul>
      @for (one of shipped; track one.name) {
        <li>
          <button matButton="outlined" (click)="put(one.look)">{{ one.name }}</button>
          <span>{{ one.says }}</span>
        </li>
      }
      @for (one of kept(); track one.name) {
        <li>
          <button matButton="outlined" (click)="put(one.look)">{{ one.name }}</button>
          <span>kept by you <button matButton (click)="forget(one.name)">forget</button></span>
        </li>
      }
    </ul>
    <p>
      <mat-form-field><input matInput
        maxlength="60"
        placeholder="name of this look"
        aria-label="Name of the look"
        [ngModel]="name()"
        (ngModelChange)="name.set($event)" /></mat-form-field>
      <button matButton="filled" [disabled]="!name().trim()" [ptBusy]="run.busy()" (click)="keep()">Keep this look</button>
    </p>
    @if (run.problem()) {
      <p class="error" role="alert">{{ run.problem() }}</p>
    }
    <p class="faint">A look is how sizes, names and ties are drawn, not what they say. Undo takes it back.</p>
  `,
  styleUrl: './corner-panel.scss',
  styles: `
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      display: grid;
      grid-template-columns: 116px 1fr;
      gap: 10px;
      align-items: start;
      padding: 5px 0;
      border-top: 1px solid var(--line);
    }
    li > .mdc-button {
      overflow-wrap: anywhere;
    }
    li span {
      color: var(--soft);
    }
    p {
      margin: 8px 0 0;
      display: flex;
      gap: 8px;
    }
    mat-form-field {
      flex: 1;
      min-width: 0;
    }
  `,
})
export class LooksPanel {
  readonly closed = output();
  private readonly session = inject(MapSession);
  private readonly api = inject(Api);
  protected readonly run = stepRun();
  protected readonly shipped = SHIPPED_LOOKS;
  protected readonly kept = signal<readonly KeptLook[]>([]);
  protected readonly name = signal('');

  constructor() {
    this.read();
  }

  protected put(look: Look): void {
    const data = this.session.data();
    if (!data) return;
    const description = withLook(this.session.description(), look, data);
    this.session.describe(description);
  }

  protected keep(): void {
    const network = this.session.network();
    if (!network) return;
    const asked = { name: this.name().trim(), look: lookOf(this.session.description()) };
    this.run.start(network.study, 'keep-look', asked, () => {
      this.name.set('');
      this.read();
    });
  }

  protected forget(name: string): void {
    const network = this.session.network();
    if (network) this.run.start(network.study, 'forget-look', { name }, () => this.read());
  }

  private read(): void {
    this.api.looks().subscribe((looks) => this.kept.set(looks));
  }
}
