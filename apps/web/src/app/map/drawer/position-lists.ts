import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import {
  connectors,
  formatCount,
  graphOf,
  groupCodes,
  loudButLocal,
  neighbourRows,
  numbersOf,
  nodeLabels,
  withoutSelfLoops,
  type Position,
} from '@pebble/core';
import { groupingsOf } from '../session/grouping';
import { MapSession } from '../session/map-session';
import { rankingColumn } from '../session/tie-columns';

const SHOWN = 12;

/** Active nodes whose ties mostly leave their group, and loud ones within one group only. */
@Component({
  selector: 'pt-position-lists',
  imports: [MatInput, MatFormField, MatButton, FormsModule, NgTemplateOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ng-template #named let-list>
      <ol>
        @for (one of list.shown; track one.node) {
          <li>
            <button matButton (click)="select(one.node)">{{ one.label }}</button>
            <span>{{ one.says }}</span>
          </li>
        } @empty {
          <li class="soft">Nobody.</li>
        }
      </ol>
      @if (list.more > 0) {
        <p class="soft">and {{ list.more }} more</p>
      }
    </ng-template>
    @if (column(); as c) {
      <p class="bar">
        Groups by
        <mat-form-field><select matNativeControl aria-label="Groups" [ngModel]="c" (ngModelChange)="chosen.set($event)">
          @for (one of groupings(); track one.name) {
            <option [value]="one.name">{{ one.title }}</option>
          }
        </select></mat-form-field>
      </p>
      <h3>Connectors</h3>
      <p class="soft">
        {{ words().Many }} with a strength of at least
        <mat-form-field class="count"><input matInput
          type="number"
          min="0"
          aria-label="Least strength of connectors"
          [ngModel]="least()"
          (ngModelChange)="least.set($event ?? 0)" /></mat-form-field>
        most of whose partners are outside their own group.
      </p>
      <ng-container [ngTemplateOutlet]="named" [ngTemplateOutletContext]="{ $implicit: connecting() }" />
      <h3>Loud but local</h3>
      <p class="soft">
        {{ loudWords() }} at least
        <mat-form-field class="count"><input matInput
          type="number"
          min="1"
          aria-label="Least degree of the loud"
          [ngModel]="loudest()"
          (ngModelChange)="loudest.set($event ?? 1)" /></mat-form-field>, nine of ten partners in their own group.
      </p>
      <ng-container [ngTemplateOutlet]="named" [ngTemplateOutletContext]="{ $implicit: local() }" />
    } @else {
      <p class="soft">There are no groups yet: find some under Groups.</p>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 8px 18px 14px;
    }
    h3 {
      margin: 10px 0 2px;
      font: 600 15px/1.2 var(--serif);
    }
    p {
      margin: 0 0 4px;
    }
    .box {
      font-size: 13.5px;
      padding: 2px 6px;
    }
    .count {
      width: 66px;
    }
    ol {
      margin: 0;
      padding-left: 22px;
    }
    li span {
      color: var(--soft);
      margin-left: 6px;
    }
  `,
})
export class PositionLists {
  private readonly session = inject(MapSession);
  protected readonly words = this.session.words;
  protected readonly chosen = signal<string | null>(null);
  protected readonly least = signal(10);
  protected readonly loudest = signal(10);
  protected readonly groupings = computed(() => groupingsOf(this.session.network(), this.session.data()));
  protected readonly column = computed(() => {
    const names = this.groupings().map(({ name }) => name);
    return names.find((name) => name === this.chosen()) ?? names.at(0) ?? null;
  });
  private readonly rows = computed(() => {
    const data = this.session.data();
    return data ? withoutSelfLoops(neighbourRows(graphOf(data.nodeCount, data.edges))) : null;
  });
  private readonly codes = computed(() => {
    const column = this.column();
    const data = this.session.data();
    return column !== null && data ? groupCodes(data.nodes[column]).of : null;
  });
  private readonly loudColumn = computed(() => {
    const data = this.session.data();
    return data ? rankingColumn(data) : null;
  });
  protected readonly loudWords = computed(() => {
    const { Many } = this.words();
    return this.loudColumn()?.column === 'inDegree'
      ? `${Many} with an in-degree of`
      : `${Many} with a degree of`;
  });
  protected readonly connecting = computed(() => {
    const [data, rows, codes] = [this.session.data(), this.rows(), this.codes()];
    if (!data || !rows || !codes || !('strength' in data.nodes)) return this.told([]);
    return this.told(connectors(rows, codes, numbersOf(data.nodes, 'strength'), this.least()));
  });
  protected readonly local = computed(() => {
    const [data, rows, codes, loud] = [this.session.data(), this.rows(), this.codes(), this.loudColumn()];
    if (!data || !rows || !codes || !loud || !(loud.column in data.nodes)) return this.told([]);
    return this.told(loudButLocal(rows, codes, numbersOf(data.nodes, loud.column), this.loudest()));
  });

  protected select(node: number): void {
    this.session.selectNode(node);
  }

  private told(all: readonly Position[]) {
    const labels = nodeLabels(this.session.data()?.nodes ?? { handle: [] });
    return {
      shown: all.slice(0, SHOWN).map(({ node, partners, inside, groups }) => ({
        node,
        label: labels[node],
        says: `${formatCount(partners - inside)} of ${formatCount(partners)} partners outside, ${groups} ${groups === 1 ? 'group' : 'groups'}`,
      })),
      more: Math.max(0, all.length - SHOWN),
    };
  }
}
