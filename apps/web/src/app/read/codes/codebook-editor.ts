import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { CODE_COLOURS, type EditedCode } from '@pebble/contract';
import { counted } from '@pebble/core/first';
import { Api } from '../../api/api';
import { SaveData } from '../../shared/save-data';
import { stepRun } from '../../shared/step-run';
import { Coding } from './coding';
import { draftOf } from '../../shared/draft';

/** The codes with when they are given, in their order: the first nine have keys. */
@Component({
  selector: 'pt-codebook-editor',
  imports: [MatButton, MatFormField, MatInput, SaveData],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './codebook-editor.html',
  styleUrls: ['../common/cells.scss', './codebook-editor.scss'],
})
export class CodebookEditor {
  private readonly api = inject(Api);
  protected readonly coding = inject(Coding);
  protected readonly taking = stepRun();
  protected readonly said = signal<string | null>(null);
  /** The codes as they are typed; what is kept, until something is. */
  protected readonly codes = draftOf((): readonly EditedCode[] =>
    this.coding.codes().map(({ messages: _, ...code }) => code),
  );
  protected readonly isChanged = computed(
    () =>
      JSON.stringify(this.codes()) !==
      JSON.stringify(this.coding.codes().map(({ messages: _, ...code }) => code)),
  );
  /** What goes when the codes are kept as they are typed. */
  protected readonly goes = computed(() => {
    const kept = new Set(this.codes().map(({ id }) => id));
    const gone = this.coding.codes().filter(({ id, messages }) => !kept.has(id) && messages > 0);
    return gone.map(({ name, messages }) => `“${name}” goes from ${counted(messages, 'message')}`).join('; ');
  });

  protected add(): void {
    const colour = CODE_COLOURS[this.codes().length % CODE_COLOURS.length];
    const set = this.codes().at(-1)?.set ?? '';
    this.codes.update((all) => [...all, { id: null, name: '', definition: '', examples: '', colour, set }]);
  }

  protected change(at: number, part: Partial<EditedCode>): void {
    this.codes.update((all) => all.map((code, i) => (i === at ? { ...code, ...part } : code)));
  }

  protected move(at: number, by: 1 | -1): void {
    this.codes.update((all) => {
      const order = [...all];
      [order[at], order[at + by]] = [order[at + by], order[at]];
      return order;
    });
  }

  protected remove(at: number): void {
    this.codes.update((all) => all.filter((_, i) => i !== at));
  }

  protected undo(): void {
    this.codes.set(this.coding.codes().map(({ messages: _, ...code }) => code));
  }

  protected save(): void {
    this.said.set(null);
    this.coding.save(this.codes(), () => this.said.set('kept'));
  }

  /** Takes in codes, or what was coded, from a file. */
  protected take(input: HTMLInputElement): void {
    const file = input.files?.item(0);
    input.value = '';
    if (!file) return;
    this.said.set(null);
    const study = this.coding.study();
    this.api.sendBytes({ study }, { bytes: file, name: file.name }).subscribe({
      next: ({ id }) =>
        this.taking.start(study, 'import-codes', { upload: id, file: file.name }, ({ sentence }) => {
          this.said.set(sentence);
          this.coding.read();
        }),
      error: (error: Error) => this.taking.problem.set(error.message),
    });
  }
}
