import { computed, inject, Injectable, signal } from '@angular/core';
import type { Codebook, EditedCode } from '@pebble/contract';
import { Api } from '../../api/api';
import { stepRun } from '../../shared/step-run';

const KEY = 'pebble-coder';

/** The codes of a study, who codes now, and what is to be coded. */
@Injectable()
export class Coding {
  private readonly api = inject(Api);
  readonly study = signal('');
  /** Null until it is read. */
  readonly book = signal<Codebook | null>(null);
  readonly error = signal<string | null>(null);
  readonly codes = computed(() => this.book()?.codes ?? []);
  readonly samples = computed(() => this.book()?.samples ?? []);
  /** Under whose name it is coded; kept in the browser, since it is the one who sits before it. */
  readonly coder = signal(localStorage.getItem(KEY) ?? 'first coder');
  readonly saving = stepRun();
  readonly drawing = stepRun();

  open(study: string): void {
    if (this.study() !== study) this.book.set(null);
    this.study.set(study);
    this.read();
  }

  read(): void {
    const study = this.study();
    this.error.set(null);
    this.api.codebook({ study }).subscribe({
      next: (book) => {
        if (this.study() === study) this.book.set(book);
      },
      error: (error: Error) => this.error.set(error.message),
    });
  }

  call(coder: string): void {
    const name = coder.trim();
    if (name === '') return;
    localStorage.setItem(KEY, name);
    this.coder.set(name);
  }

  /** Keeps the codes as they are now. */
  save(codes: readonly EditedCode[], done: () => void): void {
    this.saving.start(this.study(), 'edit-codebook', { codes: [...codes] }, () => {
      this.read();
      done();
    });
  }

  nameOf(code: number): string {
    return this.codes().find(({ id }) => id === code)?.name ?? 'a code that is gone';
  }

  colourOf(code: number): string {
    return this.codes().find(({ id }) => id === code)?.colour ?? '#808080';
  }
}
