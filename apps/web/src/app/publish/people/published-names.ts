import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { STEP_TRAITS, type NodeNames, type People, type Step } from '@pebble/contract';
import { forkJoin, map, of } from 'rxjs';
import { Api } from '../../api/api';
import { MapSession } from '../../map/session/map-session';
import { asking } from '../../shared/asking';
import { work } from '../../store/work.reducer';
import { doneSteps } from '../../shared/done-steps';
import { lastRead } from '../../shared/last-read';

/** How people are called in what is published: in the study, and in each network that is on the page. */
@Injectable()
export class PublishedNames {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly session = inject(MapSession);
  /** Networks that are on the page, beside the one that is open. */
  readonly beside = signal<readonly string[]>([]);
  private readonly study = this.store.selectSignal(work.selectId);
  private readonly steps = this.store.selectSignal(work.selectSteps);
  /** How many steps there were after which people may be called otherwise, or may be others. */
  private readonly changed = computed(() => doneSteps(this.steps(), isOfPeople));
  private readonly asked = computed(() => {
    const study = this.study();
    return study === null ? null : { study, changed: this.changed() };
  });

  private readonly read = asking(this.asked, ({ study }) => this.api.people({ study }));
  /** As it was read last of this study, so that fields stay while it is read anew; null before it is known. */
  readonly people = lastRead<People>(this.study, this.read.found);
  readonly isHidden = computed(() => (this.people()?.naming.form ?? 'as they are') !== 'as they are');

  private readonly networks = computed(() => {
    const open = this.session.network();
    const ids = [...(open?.state === 'measured' ? [open.id] : []), ...this.beside()];
    return [...new Set(ids)].sort();
  });
  private readonly named = asking(
    () => {
      const asked = this.asked();
      return asked && { ...asked, networks: this.networks() };
    },
    ({ study, networks }) =>
      networks.length === 0
        ? of(new Map<string, NodeNames>())
        : forkJoin(networks.map((network) => this.api.nodeNames({ study, network }))).pipe(
            map((all) => new Map(all.map((names, i) => [networks[i], names]))),
          ),
  );
  /** As they were read last in this study: a picture does not vanish while they are read anew. */
  private readonly known = lastRead<ReadonlyMap<string, NodeNames>>(this.study, this.named.found);
  /** Whether they are those of now; only then may anything go out. */
  readonly isCurrent = computed(() => this.named.found() !== null);
  readonly error = computed(() => this.read.error() ?? this.named.error());

  /** Of one network; null before it is known. */
  of(network: string): NodeNames | null {
    return this.known()?.get(network) ?? null;
  }
}

function isOfPeople({ kind }: Step): boolean {
  const { changes } = STEP_TRAITS[kind];
  return (['people', 'networks', 'messages'] as const).some((part) => changes.includes(part));
}
