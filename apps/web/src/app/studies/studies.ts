import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatMenuModule } from '@angular/material/menu';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import type { Study } from '@pebble/contract';
import { Store } from '@ngrx/store';
import { ThemeChoice } from '../shared/theme';
import { ForGood } from '../shared/for-good';
import { KeptRow } from '../shared/kept-row';
import { counted, day, moment } from '../shared/words';
import { StudiesActions } from '../store/studies.actions';
import { studies } from '../store/studies.reducer';
import { foundStudies, type StudyOrder } from './found-studies';
import { StudyPicture } from './study-picture';
import { StudyWork } from './study-work';
import { WordField } from '../shared/word-field';

/** So many studies are seen at once; more can be searched and put in order. */
const FEW = 4;

/** Home: the studies, to begin, open, rename, delete and take back. */
@Component({
  selector: 'pt-studies',
  imports: [
    WordField,
    MatTooltip,
    MatInput,
    MatFormField,
    MatButton,
    ForGood,
    FormsModule,
    KeptRow,
    MatMenuModule,
    MatProgressBarModule,
    RouterLink,
    StudyPicture,
  ],
  providers: [StudyWork],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './studies.html',
  styleUrl: './studies.scss',
})
export class Studies {
  private readonly store = inject(Store);
  protected readonly theme = inject(ThemeChoice);
  protected readonly all = this.store.selectSignal(studies.selectList);
  protected readonly FEW = FEW;
  protected readonly sought = signal('');
  protected readonly order = signal<StudyOrder>('change');
  protected readonly list = computed(() => foundStudies(this.all(), this.sought(), this.order()));
  protected readonly archived = this.store.selectSignal(studies.selectArchived);
  protected readonly work = inject(StudyWork);
  protected readonly deleted = this.store.selectSignal(studies.selectDeleted);
  protected readonly loaded = this.store.selectSignal(studies.selectLoaded);
  protected readonly error = this.store.selectSignal(studies.selectError);
  protected readonly newName = signal('');
  protected readonly renaming = signal<string | null>(null);
  protected readonly counted = counted;
  protected readonly moment = (iso: string): string => moment(Date.parse(iso));

  constructor() {
    this.store.dispatch(StudiesActions.listOpened());
  }

  protected openFile(input: HTMLInputElement): void {
    const [file] = input.files ?? [];
    // The same file can be chosen again.
    input.value = '';
    if (file) this.work.open(file);
  }

  protected create(): void {
    const name = this.newName().trim();
    if (name) this.store.dispatch(StudiesActions.createRequested({ name }));
  }

  protected rename(study: Study, name: string): void {
    this.renaming.set(null);
    if (name.trim() && name.trim() !== study.name)
      this.store.dispatch(StudiesActions.renameRequested({ id: study.id, name: name.trim() }));
  }

  protected remove(study: Study): void {
    this.store.dispatch(StudiesActions.deleteRequested({ study }));
  }

  protected removeForGood(study: Study): void {
    this.store.dispatch(StudiesActions.removalRequested({ study }));
  }

  /** "29 December 2026" */
  protected until({ goneAt }: Study): string {
    return goneAt === null ? '' : day(Date.parse(goneAt));
  }

  protected restore(study: Study): void {
    this.store.dispatch(StudiesActions.restoreRequested({ id: study.id }));
  }
}
