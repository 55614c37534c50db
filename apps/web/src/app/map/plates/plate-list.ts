import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, inject, input, model, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatMenu, MatMenuItem, MatMenuTrigger } from '@angular/material/menu';
import type { Deleted, Plate } from '@pebble/contract';
import { RoutineDrafts } from '../../routines/routine-drafts';
import { Busy } from '../../shared/busy';
import { DeletedList } from '../../shared/deleted-list';
import { SmallPicture } from '../../shared/small-picture';
import { counted, day } from '../../shared/words';
import { MapSession } from '../session/map-session';
import { Plates } from './plates';

/** The plates of a study in their order, with what can be done with each. */
@Component({
  selector: 'pt-plate-list',
  imports: [
    CdkDrag,
    CdkDragHandle,
    CdkDropList,
    FormsModule,
    RouterLink,
    MatButton,
    MatCheckbox,
    MatFormField,
    MatInput,
    MatMenu,
    MatMenuItem,
    MatMenuTrigger,
    Busy,
    DeletedList,
    SmallPicture,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plate-list.html',
  styleUrl: './plate-list.scss',
})
export class PlateList {
  readonly study = input.required<string>();
  /** Which of them are chosen, by their numbers; null where none can be. */
  readonly chosen = model<readonly number[] | null>(null);
  protected readonly plates = inject(Plates);
  private readonly session = inject(MapSession);
  private readonly drafts = inject(RoutineDrafts);
  protected readonly day = day;
  /** The plate whose title is being written. */
  protected readonly named = signal<number | null>(null);
  protected readonly title = signal('');
  protected readonly note = signal('');
  /** Whether a map is open that can take the place of a plate. */
  protected readonly isMapOpen = computed(() => this.session.places() !== null);

  protected makeRoutine({ id, title }: Plate): void {
    this.drafts.make(this.study(), { name: title, plate: id });
  }

  protected shown({ shown: { nodes, edges } }: Pick<Plate, 'shown'>): string {
    return `${counted(nodes, 'node')}, ${counted(edges, 'tie')}`;
  }

  /** What is different today; nothing where it would look the same. */
  protected difference({ today, shown }: Plate): string {
    switch (today.what) {
      case 'same':
        return '';
      case 'other':
        return today.shown.nodes === shown.nodes && today.shown.edges === shown.edges
          ? 'Its network has other values by now: it would look otherwise.'
          : `Its network has other values by now: it would show ${this.shown(today)}.`;
      case 'stale':
        return 'Other decisions hold by now than when its network was woven.';
      case 'no network':
        return 'Its network was deleted.';
      case 'not drawn':
        return `It cannot be drawn any more: ${today.why}`;
    }
  }

  protected begin({ id, title, note }: Plate): void {
    this.named.set(id);
    this.title.set(title);
    this.note.set(note);
  }

  protected end(plate: Plate): void {
    const title = this.title().trim();
    this.named.set(null);
    if (title !== '') this.plates.name(plate, title, this.note().trim());
  }

  protected takeBack({ id, name: title }: Deleted): void {
    this.plates.takeBack({ id: Number(id), title });
  }

  protected dropped({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    this.plates.move(previousIndex, currentIndex);
  }

  protected tick({ id }: Plate, isChosen: boolean): void {
    const others = (this.chosen() ?? []).filter((one) => one !== id);
    this.chosen.set(isChosen ? [...others, id] : others);
  }
}
