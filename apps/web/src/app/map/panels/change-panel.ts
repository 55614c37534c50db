import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import type { NetworkChange } from '@pebble/contract';
import { stepRun } from '../../shared/step-run';
import { counted } from '../../shared/words';
import { MapSession } from '../session/map-session';
import { planning } from '../session/planning';
import { Busy } from '../../shared/busy';

/** What hands are to change in the network itself; a network of its own is made of it, and the one before stays. */
@Component({
  selector: 'pt-change-panel',
  imports: [MatTooltip, MatInput, MatFormField, MatCheckbox, MatButton, Busy, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './change-panel.html',
  styleUrls: ['./corner-panel.scss', '../drawer/name-link.scss', './change-panel.scss'],
})
export class ChangePanel {
  readonly closed = output();
  private readonly router = inject(Router);
  protected readonly session = inject(MapSession);
  protected readonly plan = planning();
  protected readonly run = stepRun();
  protected readonly counted = counted;
  protected readonly node = signal('');
  protected readonly tied = signal(true);
  protected readonly name = signal('');
  protected readonly why = signal('');
  protected readonly usualName = computed(() => `${this.session.network()?.name ?? ''}, changed by hand`);

  /** A new node, tied to what is chosen where that is wanted. */
  protected addNode(): void {
    const name = this.node().trim();
    const data = this.session.data();
    if (name === '' || !data) return;
    const added = this.plan.changes().filter(({ what }) => what === 'new-node').length;
    const source = data.nodeCount + added;
    const ties = (this.tied() ? this.session.chosen() : []).map((target): NetworkChange => ({
      what: 'new-tie',
      source,
      target,
      weight: 1,
    }));
    this.plan.add({ what: 'new-node', name }, ...ties);
    this.node.set('');
  }

  protected weigh(at: number, change: NetworkChange, weight: number): void {
    if (change.what === 'new-tie' && weight > 0) this.plan.replace(at, { ...change, weight });
  }

  /** Shows on the map what a change speaks of. */
  protected show(change: NetworkChange): void {
    const count = this.session.data()?.nodeCount ?? 0;
    const nodes = nodesOf(change).filter((node) => node < count);
    if (nodes.length > 0) this.session.chooseNodes(nodes);
  }

  protected make(): void {
    const network = this.session.network();
    if (!network) return;
    const asked = {
      network: network.id,
      name: this.name().trim() || this.usualName(),
      changes: [...this.plan.changes()],
      why: this.why().trim(),
    };
    this.run.start(network.study, 'change-network', asked, ({ result }) => {
      // A plan that is carried out is none any more; the next screen begins without it.
      this.plan.clear();
      this.closed.emit();
      void this.router.navigate(['/studies', network.study, 'map', String(result?.['network'])]);
    });
  }
}

function nodesOf(change: NetworkChange): number[] {
  switch (change.what) {
    case 'without-nodes':
      return change.nodes;
    case 'merged':
      return [...new Set([...change.nodes, change.into])];
    case 'new-tie':
      return [change.source, change.target];
    case 'without-ties':
      return change.ties.flatMap(({ source, target }) => [source, target]);
    case 'new-node':
      return [];
  }
}
