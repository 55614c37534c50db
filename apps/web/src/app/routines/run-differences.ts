import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { NetworkDifferences, RoutineRun } from '@pebble/contract';
import { columnTitle, formatCount } from '@pebble/core';
import { Api } from '../api/api';
import { asking } from '../shared/asking';
import { SmallPicture } from '../shared/small-picture';
import { counted } from '../shared/words';

/** What is other in the networks of a run than in those of the run before it of the same routine. */
@Component({
  selector: 'pt-run-differences',
  imports: [RouterLink, SmallPicture],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (read.error(); as why) {
      <p class="error">{{ why }}</p>
    } @else if (read.found(); as found) {
      @if (found.before === null) {
        <p class="soft">This routine was not run in this study before.</p>
      } @else {
        @for (one of found.networks; track one.step) {
          <h4>{{ one.step }}, beside run {{ found.before }}</h4>
          <p class="num">
            {{ counted(one.now.nodes, 'node') }} ({{ count(one.before.nodes) }} before), {{ counted(one.now.edges, 'tie') }}
            ({{ count(one.before.edges) }}), {{ counted(one.now.groups, 'group') }} ({{ count(one.before.groups) }}).
            @if (one.agreement !== null) {
              Of the nodes of both, groupings agree by
              <span title="Adjusted Rand index (Hubert & Arabie 1985): 1 is the same grouping, 0 what chance would give"
                >{{ one.agreement.toFixed(2) }}</span
              >.
            }
          </p>
          @if (one.measures.length > 0) {
            <p class="num">
              {{ measures(one) }}
            </p>
          }
          @if (one.came.count > 0) {
            <p>{{ counted(one.came.count, 'node') }} came: {{ names(one.came) }}.</p>
          }
          @if (one.gone.count > 0) {
            <p>{{ counted(one.gone.count, 'node') }} went: {{ names(one.gone) }}.</p>
          }
          <ul [attr.aria-label]="'Groups of ' + one.step">
            @for (group of one.groups.slice(0, most); track $index) {
              <li>{{ group.title }} {{ group.what }}</li>
            }
          </ul>
          @if (one.groups.length > most) {
            <details>
              <summary>{{ counted(one.groups.length - most, 'other group') }}</summary>
              <ul>
                @for (group of one.groups.slice(most); track $index) {
                  <li>{{ group.title }} {{ group.what }}</li>
                }
              </ul>
            </details>
          }
          <table>
            <caption>
              First by
              {{
                columnTitle(one.by)
              }}
            </caption>
            <thead>
              <tr>
                <th scope="col">now</th>
                <th scope="col">before</th>
                <th scope="col">name</th>
              </tr>
            </thead>
            <tbody>
              @for (rank of one.ranks; track rank.name) {
                <tr>
                  <td class="num">{{ rank.now }}</td>
                  <td class="num">{{ rank.before ?? 'new' }}</td>
                  <td>{{ rank.name }}</td>
                </tr>
              }
            </tbody>
          </table>
        } @empty {
          <p class="soft">No network of this run has one beside it that is still there.</p>
        }
        @for (pair of pairs(); track pair.step) {
          <h4>{{ pair.now.title }}, beside run {{ found.before }}</h4>
          <div class="pair">
            @for (plate of [pair.before, pair.now]; track plate.id) {
              <figure>
                <a
                  [routerLink]="['/studies', run().study, 'map', plate.network]"
                  [queryParams]="{ plate: plate.id }"
                  [attr.aria-label]="'Plate ' + plate.title + ($first ? ', before' : ', now')"
                  ><pt-small-picture [picture]="plate.picture"
                /></a>
                <figcaption>
                  <b>{{ $first ? 'before' : 'now' }}</b> {{ plate.caption }}
                </figcaption>
              </figure>
            }
          </div>
        }
      }
    } @else {
      <p class="soft" role="status">Being compared …</p>
    }
  `,
  styles: `
    :host {
      display: block;
      overflow-wrap: anywhere;
    }
    h4 {
      margin: 10px 0 4px;
    }
    p {
      margin: 3px 0;
    }
    ul {
      margin: 6px 0;
      padding-left: 22px;
    }
    .pair {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
      gap: 20px;
    }
    figure {
      margin: 4px 0;
    }
    figcaption {
      color: var(--soft);
      font-size: 13px;
    }
    figcaption b {
      color: var(--ink);
    }
    summary {
      cursor: pointer;
      color: var(--tide);
      width: max-content;
    }
    caption {
      text-align: left;
      color: var(--soft);
    }
    th,
    td {
      text-align: left;
      padding: 1px 16px 1px 0;
      font-weight: normal;
    }
    th {
      color: var(--soft);
    }
  `,
})
export class RunDifferences {
  readonly run = input.required<RoutineRun>();
  private readonly api = inject(Api);
  /** Groups that are told of at once, the largest. */
  protected readonly most = 12;
  protected readonly counted = counted;
  protected readonly count = formatCount;
  protected readonly columnTitle = columnTitle;
  protected readonly read = asking(
    () => ({ study: this.run().study, routineRun: this.run().id }),
    (place) => this.api.routineDifferences(place, {}),
  );

  private readonly plates = asking(
    () => (this.read.found()?.plates.length ? this.run().study : null),
    (study) => this.api.plates({ study }),
  );
  /** Plates of both runs, beside each other. */
  protected readonly pairs = computed(() => {
    const byId = new Map((this.plates.found() ?? []).map((plate) => [plate.id, plate]));
    return (this.read.found()?.plates ?? []).flatMap(({ step, before, now }) => {
      const [earlier, later] = [byId.get(before), byId.get(now)];
      return earlier && later ? [{ step, before: earlier, now: later }] : [];
    });
  });

  protected measures({ measures }: NetworkDifferences): string {
    const digits = (value: number): string =>
      Number.isInteger(value) ? formatCount(value) : value.toFixed(3);
    return `${measures.map(({ title, before, now }) => `${title} ${digits(now)} (${digits(before)})`).join(', ')}.`;
  }

  protected names({ count, first }: { readonly count: number; readonly first: readonly string[] }): string {
    const more = count - first.length;
    return `${first.join(', ')}${more > 0 ? ` and ${counted(more, 'other')}` : ''}`;
  }
}
