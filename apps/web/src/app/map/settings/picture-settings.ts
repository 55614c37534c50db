import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MOST_PICTURES, type NodePicture } from '@pebble/contract';
import { counted, formatCount, picturesByNode, unusedPictures } from '@pebble/core';
import { NodePictures } from '../session/node-pictures';
import { readPictures } from '../session/picture-file';
import { injectMapEditor } from '../session/inject-map-editor';
import { Busy } from '../../shared/busy';

/** Names that are listed at most. */
const LISTED = 6;

/** Pictures from image files inside of nodes. */
@Component({
  selector: 'pt-picture-settings',
  imports: [MatCheckbox, MatButton, Busy, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './settings.scss',
  styles: `
    .buttons {
      display: flex;
      gap: 8px;
      margin: 6px 0;
    }
    .error {
      color: var(--thread);
      margin: 5px 0;
    }
  `,
  template: `
    @if (all().length > 0) {
      <mat-checkbox
          [ngModel]="map.description().shape.pictures"
          (ngModelChange)="map.set('shape', { pictures: $event })">their pictures ({{ fitting() }})</mat-checkbox>
    }
    <p class="buttons">
      <button matButton="outlined" [ptBusy]="!!busy()" (click)="files.click()">
        {{ all().length > 0 ? 'Add pictures …' : 'Pictures from files …' }}
      </button>
      <input
        #files
        hidden
        type="file"
        multiple
        accept="image/png,image/jpeg,image/gif,image/webp"
        aria-label="Image files for nodes"
        (change)="add(files)"
      />
      @if (all().length > 0 && !busy()) {
        <button matButton (click)="remove()">Remove all</button>
      }
      @if (busy()) {
        <button matButton (click)="cancel()">Cancel</button>
      }
    </p>
    @if (busy(); as doing) {
      <p class="how" role="status">{{ doing }}</p>
    }
    @for (line of said(); track $index) {
      <p class="how" role="status">{{ line }}</p>
    }
    @if (problem()) {
      <p class="error" role="alert">{{ problem() }}</p>
    }
    @if (removed().length > 0 && !busy()) {
      <p class="how">
        {{ removed().length }} removed.
        <button matButton (click)="takeBack()">Take back</button>
      </p>
    }
    @if (all().length === 0) {
      <p class="how">
        Each file is for the node that is called like it: “{{ example() }}.png”. Files are made small here; only
        the square is kept.
      </p>
    }
  `,
})
export class PictureSettings {
  protected readonly map = injectMapEditor();
  private readonly pictures = inject(NodePictures);
  protected readonly all = this.pictures.list;
  /** What is being done, in words; null where nothing is. */
  protected readonly busy = signal<string | null>(null);
  protected readonly said = signal<readonly string[]>([]);
  protected readonly problem = signal<string | null>(null);
  /** Pictures that were removed here, and can be taken back. */
  protected readonly removed = signal<readonly NodePicture[]>([]);
  private isWanted = true;
  private readonly labels = computed(() => this.map.session.prepared()?.labels ?? []);
  protected readonly fitting = computed(
    () =>
      `${counted(picturesByNode(this.labels(), this.all()).size, 'node')} of ${formatCount(this.labels().length)}`,
  );
  protected readonly example = computed(() => this.labels()[0] ?? 'name');

  constructor() {
    effect(() => {
      const study = this.map.session.network()?.study;
      if (study) void this.pictures.open(study);
    });
  }

  protected async add(input: HTMLInputElement): Promise<void> {
    const files = [...(input.files ?? [])];
    // The same files can be chosen again.
    input.value = '';
    const study = this.map.session.network()?.study;
    if (!study || files.length === 0) return;
    if (files.length > MOST_PICTURES) {
      this.problem.set(
        `These are ${formatCount(files.length)} files; at most ${formatCount(MOST_PICTURES)} are taken at once. Nothing was changed.`,
      );
      return;
    }
    await this.during('Reading pictures …', async () => {
      this.isWanted = true;
      const told = (done: number): void => {
        if (this.isWanted) this.busy.set(`Reading picture ${done + 1} of ${files.length} …`);
      };
      const { pictures, refused } = await readPictures(files, told, () => this.isWanted);
      if (!this.isWanted) {
        this.said.set(['Cancelled; no picture was added.']);
        return;
      }
      const lost = refused.map(({ file, why }) => `${file}: ${why}`);
      if (pictures.length === 0) throw new Error(`No picture was added. ${listed(lost)}.`);
      await this.pictures.add(study, pictures);
      this.map.set('shape', { pictures: true, pies: false });
      const unused = unusedPictures(this.labels(), pictures);
      this.said.set([
        `${counted(pictures.length - unused.length, 'picture')} for nodes of this network.`,
        ...(unused.length > 0 ? [`No node here is called ${listed(unused)}; kept for other networks.`] : []),
        ...(lost.length > 0 ? [`Not read: ${listed(lost)}.`] : []),
      ]);
    });
  }

  protected async remove(): Promise<void> {
    const study = this.map.session.network()?.study;
    if (!study) return;
    await this.during('Removing pictures …', async () => {
      const removed = this.all();
      await this.pictures.remove(study);
      this.removed.set(removed);
      this.map.set('shape', { pictures: false });
    });
  }

  protected async takeBack(): Promise<void> {
    const study = this.map.session.network()?.study;
    if (!study) return;
    await this.during('Taking pictures back …', async () => {
      await this.pictures.add(study, this.removed());
      this.removed.set([]);
      this.map.set('shape', { pictures: true, pies: false });
    });
  }

  protected cancel(): void {
    this.isWanted = false;
    this.busy.set(null);
  }

  private async during(words: string, work: () => Promise<void>): Promise<void> {
    this.busy.set(words);
    this.said.set([]);
    this.problem.set(null);
    try {
      await work();
    } catch (error) {
      this.problem.set((error as Error).message);
    } finally {
      this.busy.set(null);
    }
  }
}

/** "a, b and 3 more" */
function listed(names: readonly string[]): string {
  const more = names.length - LISTED;
  return more > 0 ? `${names.slice(0, LISTED).join(', ')} and ${formatCount(more)} more` : names.join(', ');
}
