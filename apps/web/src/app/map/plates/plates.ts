import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import { STEP_TRAITS, type Plate, type Step, type StepKind, type StepParameters } from '@pebble/contract';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../api/api';
import { stepRun } from '../../shared/step-run';
import { Notices } from '../../store/notices';
import { work } from '../../store/work.reducer';
import { MapSession } from '../session/map-session';
import { interleave } from '../session/places';
import { cut, freeTitle, LONGEST } from './plate-titles';
import { doneSteps } from '../../shared/done-steps';

/** The plates of the open study: kept states of its maps. */
@Injectable({ providedIn: 'root' })
export class Plates {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly notices = inject(Notices);
  private readonly session = inject(MapSession);
  private readonly open = this.store.selectSignal(work.selectStudy);
  readonly study = computed(() => this.open()?.id);
  private readonly steps = this.store.selectSignal(work.selectSteps);
  private readonly found = signal<readonly Plate[] | null>(null);
  /** In their order; null before they are known. */
  readonly all = this.found.asReadonly();
  readonly run = stepRun();
  /** How many steps there were after which a plate may be another, or look otherwise. */
  private readonly changed = computed(() => doneSteps(this.steps(), isOfPlates));

  constructor() {
    effect((onCleanup) => {
      const study = this.study();
      this.changed();
      if (study === undefined) {
        this.found.set(null);
        return;
      }
      const reading = untracked(() => this.read(study));
      onCleanup(() => reading.unsubscribe());
    });
  }

  /** Keeps the map that is open: as a new plate, or in the place of one. */
  async keep(instead: Plate | null = null): Promise<void> {
    const network = this.session.network();
    const map = this.session.plateMap();
    const places = this.session.places();
    if (!network || !map || !places) return this.notices.say('There is no map yet that could be kept.');
    if (this.session.layout().what === 'running')
      return this.notices.say('The map is being arranged: it can be kept once it has come to rest.');
    this.run.busy.set(true);
    try {
      const { id: upload } = await firstValueFrom(
        this.api.sendBytes({ study: network.study }, { bytes: interleave(places) }),
      );
      const title = instead?.title ?? freeTitle(network.name, map.description, this.found() ?? []);
      const asked = { ...map, network: network.id, title, note: instead?.note ?? '', upload };
      this.start('keep-plate', { ...asked, plate: instead?.id ?? null }, ({ result }) => {
        if (instead) return this.notices.say(`“${title}” is the map as it is now.`);
        const kept = { id: Number(result?.['plate']), title };
        this.notices.withUndo(`The map was kept as plate “${title}”.`, () => this.delete(kept));
      });
    } catch (error) {
      this.run.busy.set(false);
      this.run.problem.set((error as Error).message);
    }
  }

  name({ id: plate }: Plate, title: string, note: string): void {
    this.start('name-plate', { plate, title, note });
  }

  duplicate({ id: plate, title }: Plate): void {
    this.start('duplicate-plate', { plate, title: `${cut(title, LONGEST - 6)}, copy` });
  }

  renew({ id: plate, title }: Plate): void {
    this.start('renew-plate', { plate, title });
  }

  /** @param plate null for none */
  chooseCover(plate: Plate | null): void {
    this.start('choose-cover', { plate: plate?.id ?? null });
  }

  /** Puts one plate to another place. The list shows it at once. */
  move(from: number, to: number): void {
    const plates = [...(this.found() ?? [])];
    if (from === to || !(from in plates) || !(to in plates)) return;
    plates.splice(to, 0, ...plates.splice(from, 1));
    this.found.set(plates);
    this.start('order-plates', { plates: plates.map(({ id }) => id) });
  }

  /** Deletes a plate, which can be taken back. */
  delete({ id: plate, title }: Pick<Plate, 'id' | 'title'>): void {
    this.start('delete-plate', { plate, title }, () =>
      this.notices.withUndo(`Plate “${title}” was deleted.`, () => this.takeBack({ id: plate, title })),
    );
  }

  takeBack({ id: plate, title }: Pick<Plate, 'id' | 'title'>): void {
    this.start('restore-plate', { plate, title });
  }

  private start<K extends StepKind>(
    kind: K,
    parameters: StepParameters<K>,
    done?: (step: Step) => void,
  ): void {
    const study = this.study();
    if (study === undefined) return;
    const again = (): void => void this.read(study);
    this.run.start(
      study,
      kind,
      parameters,
      (step) => {
        done?.(step);
        again();
      },
      again,
    );
  }

  private read(study: string) {
    return this.api.plates({ study }).subscribe({
      next: (plates) => {
        if (this.study() === study) this.found.set(plates);
      },
      error: (error: Error) => this.run.problem.set(error.message),
    });
  }
}

/** Whether plates may be others after it, or look otherwise: what they show is columns of networks. */
function isOfPlates({ kind }: Step): boolean {
  const { changes } = STEP_TRAITS[kind];
  return changes.includes('plates') || changes.includes('networks');
}
