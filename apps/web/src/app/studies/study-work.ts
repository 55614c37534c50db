import { inject, Injectable, signal } from '@angular/core';
import {
  addressOf,
  ROUTES,
  type OpeningStudy,
  type Step,
  type StepKind,
  type StepParameters,
  type Study,
} from '@pebble/contract';
import { Store } from '@ngrx/store';
import { of, switchMap, tap, type Observable } from 'rxjs';
import { Api } from '../api/api';
import { Notices } from '../store/notices';
import { studyEvents } from '../api/study-events';
import { saveFrom } from '../shared/save-file';
import { StudiesActions } from '../store/studies.actions';

/** Something that is done with a whole study. */
interface AtWork {
  readonly title: string;
  /** 0 to 1; null while it is unknown. */
  readonly share: number | null;
  /** Once it has begun: it can be cancelled. */
  readonly step: { readonly study: string; readonly id: number } | null;
}

/** Copies, packs and opens whole studies, one at a time, with how far it is. */
@Injectable()
export class StudyWork {
  readonly atWork = signal<AtWork | null>(null);
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly notices = inject(Notices);

  duplicate({ id, name }: Study): void {
    const copy = `${name.slice(0, 190)} (copy)`;
    this.run(`Duplicating “${name}”`, () => this.step(id, 'duplicate-study', { name: copy })).subscribe({
      next: () => this.end(`“${copy}” has everything that “${name}” has.`),
    });
  }

  save({ id, name }: Study): void {
    this.run(`Saving “${name}”`, () => this.step(id, 'save-study', {})).subscribe({
      next: (step) => {
        saveFrom(addressOf(ROUTES.savedStudy, { study: id, step: step.id }));
        this.end(step.sentence);
      },
    });
  }

  archive({ id, name }: Study): void {
    this.run(`Archiving “${name}”`, () => this.step(id, 'archive-study', {})).subscribe({
      next: () => this.end(`“${name}” is archived; it stands below the list and can be opened again.`),
    });
  }

  open(file: File): void {
    this.run(`Opening ${file.name}`, () =>
      this.api.openFile({ bytes: file, name: file.name }).pipe(switchMap((made) => this.takeIn(made))),
    ).subscribe({
      next: ({ sentence }) => this.end(sentence),
    });
  }

  openAgain({ id, name }: Study): void {
    this.run(`Opening “${name}”`, () =>
      this.api.openAgain({ study: id }).pipe(switchMap((made) => this.takeIn(made))),
    ).subscribe({
      next: () => this.end(`“${name}” is open again.`),
    });
  }

  cancel(): void {
    const { step } = this.atWork() ?? {};
    if (step) this.api.cancelStep({ study: step.study, step: step.id }).subscribe({ error: () => undefined });
  }

  private takeIn({ study, by, ...parameters }: OpeningStudy): Observable<Step> {
    return this.step(study, by, parameters);
  }

  /** A step of a study, with its progress; what is not done is an error. */
  private step<K extends StepKind>(study: string, kind: K, parameters: StepParameters<K>): Observable<Step> {
    const listening = studyEvents(study).subscribe((event) => {
      if (event === 'connected again' || event.type !== 'progress' || event.progress.kind !== kind) return;
      const { step, share } = event.progress;
      this.atWork.update((before) => before && { ...before, share, step: { study, id: step } });
    });
    return this.api.step(study, kind, parameters).pipe(
      tap({ finalize: () => listening.unsubscribe() }),
      switchMap((step) => {
        if (step.state !== 'done') throw new Error(step.error ?? 'It was stopped.');
        return of(step);
      }),
    );
  }

  private run(title: string, work: () => Observable<Step>): Observable<Step> {
    this.atWork.set({ title, share: null, step: null });
    return work().pipe(
      tap({
        error: (error: Error) => {
          this.atWork.set(null);
          this.store.dispatch(StudiesActions.failed({ message: error.message }));
        },
      }),
    );
  }

  private end(said: string): void {
    this.atWork.set(null);
    this.notices.say(said);
    this.store.dispatch(StudiesActions.listOpened());
  }
}
