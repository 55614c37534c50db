import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { NetworkDifferences, RoutineRun, SmallPicture as Picture } from '@pebble/contract';
import { columnTitle, formatCount } from '@pebble/core';
import { catchError, forkJoin, map, of, switchMap, type Observable } from 'rxjs';
import { Api } from '../api/api';
import { asking } from '../shared/asking';
import { SmallPicture } from '../shared/small-picture';
import { RUN_STATES } from './run-states';

/** One answer that was tried, beside the first one. */
interface Row {
  readonly run: RoutineRun;
  readonly value: string;
  readonly now: NetworkDifferences['now'] | null;
  /** Null for the first one. */
  readonly agreement: number | null;
  readonly first: readonly string[];
  readonly picture: Picture | null;
}

/** What depends on an answer: each that was tried with its network, how far its groups agree with those of the first, and who comes first. */
@Component({
  selector: 'pt-variation-table',
  imports: [RouterLink, SmallPicture],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <table>
      <caption>
        What depends on “{{ question() }}”
      </caption>
      <thead>
        <tr>
          <th scope="col">value</th>
          <th scope="col">map</th>
          <th scope="col">nodes</th>
          <th scope="col">ties</th>
          <th scope="col">groups</th>
          <th
            scope="col"
            title="Adjusted Rand index (Hubert & Arabie 1985) over the nodes of both: 1 is the same grouping, 0 what chance would give"
          >
            agreement with the first
          </th>
          <th scope="col">first ten by {{ by() }}</th>
        </tr>
      </thead>
      <tbody>
        @for (row of rows(); track row.run.id) {
          <tr>
            <th scope="row">{{ row.value }}</th>
            <td>
              @if (row.picture; as picture) {
                <a
                  [routerLink]="['/studies', row.run.study, 'map', row.now!.network]"
                  [attr.aria-label]="'Map for ' + row.value"
                  ><pt-small-picture [picture]="picture"
                /></a>
              }
            </td>
            @if (row.now; as now) {
              <td class="num">{{ count(now.nodes) }}</td>
              <td class="num">{{ count(now.edges) }}</td>
              <td class="num">{{ count(now.groups) }}</td>
              <td class="num">{{ row.agreement?.toFixed(2) ?? '' }}</td>
              <td class="names">{{ row.first.join(', ') }}</td>
            } @else {
              <td colspan="5" class="soft">{{ states[row.run.state] }}</td>
            }
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    :host {
      display: block;
      overflow-x: auto;
      margin: 8px 0;
    }
    table {
      border-collapse: collapse;
    }
    caption {
      text-align: left;
      color: var(--soft);
      margin-bottom: 4px;
    }
    th,
    td {
      text-align: left;
      vertical-align: top;
      padding: 6px 14px 6px 0;
      border-top: 1px solid var(--line);
      font-weight: normal;
    }
    thead th {
      border-top: 0;
      color: var(--soft);
    }
    tbody th {
      font-weight: 600;
    }
    .names {
      min-width: 240px;
      overflow-wrap: anywhere;
    }
  `,
})
export class VariationTable {
  /** All runs that were begun together, in their order. */
  readonly runs = input.required<readonly RoutineRun[]>();
  private readonly api = inject(Api);
  protected readonly states = RUN_STATES;
  protected readonly count = formatCount;
  protected readonly question = computed(() => {
    const [{ routine, varied }] = this.runs();
    return routine.questions.find(({ name }) => name === varied?.question)?.ask ?? varied?.question ?? '';
  });
  private readonly found = asking(
    () => this.runs().map(({ study, id, state }) => ({ study, id, state })),
    (runs) => this.compared(runs),
  );
  /** By what nodes are ranked. */
  protected readonly by = computed(() =>
    columnTitle((this.found.found() ?? []).find((one) => one.differences)?.differences?.by ?? 'degree'),
  );
  protected readonly rows = computed((): Row[] => {
    const found = this.found.found() ?? [];
    return this.runs().map((run, i): Row => {
      const one = found.at(i);
      // The first one stands beside each of the others.
      const beside = found.find((other) => other?.differences)?.differences;
      const now = one?.differences?.now ?? (i === 0 ? (beside?.before ?? null) : null);
      return {
        run,
        value: wordsOf(run.varied?.value ?? null),
        now,
        agreement: i === 0 ? null : (one?.differences?.agreement ?? null),
        first: (one?.differences?.ranks ?? []).map(({ name }) => name),
        picture: one?.picture ?? null,
      };
    });
  });

  /** Each run that is done beside the first one, which stands beside the second. */
  private compared(
    runs: readonly Pick<RoutineRun, 'study' | 'id' | 'state'>[],
  ): Observable<readonly Compared[]> {
    const first = runs[0];
    return forkJoin(
      runs.map(({ study, id, state }, i): Observable<Compared> => {
        const other = i === 0 ? runs.find((one) => one.id !== id && one.state === 'done') : first;
        if (state !== 'done' || !other) return of(NOTHING);
        return this.api.routineDifferences({ study, routineRun: id }, { beside: other.id }).pipe(
          switchMap(({ networks: [differences] }) =>
            differences
              ? this.api.smallPicture({ study, network: differences.now.network }).pipe(
                  catchError(() => of(null)),
                  map((picture) => ({ differences, picture })),
                )
              : of(NOTHING),
          ),
        );
      }),
    );
  }
}

interface Compared {
  readonly differences: NetworkDifferences | null;
  readonly picture: Picture | null;
}
const NOTHING: Compared = { differences: null, picture: null };

function wordsOf(value: unknown): string {
  if (value === null) return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return Array.isArray(value) ? value.join(', ') : String(value);
}
