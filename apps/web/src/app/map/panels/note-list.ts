import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { Note } from '@pebble/contract';
import { MapSession } from '../session/map-session';

/** How far from what it speaks of a new note stands, in pixels. */
const ASIDE = { dx: 120, dy: -70 };

/** The notes on the map about one node or tie, where they are written and taken away. */
@Component({
  selector: 'pt-note-list',
  imports: [MatInput, MatFormField, MatButton, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (one of notes(); track one.index) {
      <p>
        <mat-form-field><textarea matInput
          rows="2"
          maxlength="300"
          aria-label="Note on the map"
          [ngModel]="one.note.text"
          (change)="write(one.index, $any($event.target).value)"
        ></textarea></mat-form-field>
        <button matButton (click)="remove(one.index)">Take away</button>
      </p>
    }
    @if (writing()) {
      <form (ngSubmit)="add()">
        <mat-form-field><textarea matInput
          #field
          rows="2"
          maxlength="300"
          name="text"
          placeholder="What a reader of the map should know"
          aria-label="New note"
          [ngModel]="text()"
          (ngModelChange)="text.set($event)"
          (keydown.control.enter)="add()"
          (keydown.escape)="stop($event)"
        ></textarea></mat-form-field>
        <button matButton="outlined" class="small" [disabled]="!text().trim()">Put it on the map</button>
      </form>
    } @else {
      <button matButton="outlined" class="small" (click)="writing.set(true)">Write a note on the map</button>
    }
  `,
  styles: `
    :host {
      display: block;
      margin: 6px 0 10px;
    }
    p,
    form {
      display: flex;
      gap: 6px;
      align-items: flex-end;
      margin: 4px 0;
    }
    mat-form-field {
      flex: 1;
      min-width: 0;
    }
    textarea {
      font: 14px/1.35 var(--serif);
      resize: vertical;
    }
  `,
})
export class NoteList {
  readonly at = input.required<Note['at']>();
  private readonly session = inject(MapSession);
  protected readonly writing = signal(false);
  protected readonly text = signal('');
  protected readonly notes = computed(() =>
    this.session
      .description()
      .notes.map((note, index) => ({ note, index }))
      .filter(({ note }) => isSame(note.at, this.at())),
  );

  protected add(): void {
    const text = this.text().trim();
    const scale = this.session.view()?.scale ?? 1;
    if (!text) return;
    const note = { text, at: this.at(), dx: ASIDE.dx / scale, dy: ASIDE.dy / scale };
    this.set([...this.session.description().notes, note]);
    this.text.set('');
    this.writing.set(false);
  }

  protected write(index: number, text: string): void {
    if (!text.trim()) this.remove(index);
    else
      this.set(
        this.session.description().notes.map((one, i) => (i === index ? { ...one, text: text.trim() } : one)),
      );
  }

  protected remove(index: number): void {
    this.set(this.session.description().notes.filter((_, i) => i !== index));
  }

  protected stop(event: Event): void {
    event.stopPropagation();
    this.writing.set(false);
  }

  private set(notes: Note[]): void {
    const description = { ...this.session.description(), notes };
    this.session.describe(description);
  }
}

function isSame(a: Note['at'], b: Note['at']): boolean {
  if (a.what === 'node') return b.what === 'node' && a.node === b.node;
  return b.what === 'tie' && a.source === b.source && a.target === b.target;
}
