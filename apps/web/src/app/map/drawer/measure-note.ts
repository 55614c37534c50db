import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatTooltip } from '@angular/material/tooltip';
import { Store } from '@ngrx/store';
import { counted, formatCount } from '@pebble/core/first';
import { stepRun } from '../../shared/step-run';
import { work } from '../../store/work.reducer';
import { MapSession } from '../session/map-session';

/** What was measured of the network, in a line; betweenness that was cancelled can be computed here. */
@Component({
  selector: 'pt-measure-note',
  imports: [MatButton, MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span [matTooltip]="note()">{{ note() }}</span>
    @if (isLost() && !run.busy()) {
      <button matButton (click)="compute()">Compute it</button>
    }
    @if (run.problem(); as text) {
      <span role="alert">{{ text }}</span>
    }
  `,
})
export class MeasureNote {
  private readonly session = inject(MapSession);
  private readonly steps = inject(Store).selectSignal(work.selectSteps);
  protected readonly run = stepRun();
  private readonly measures = computed(() => this.session.network()?.measures ?? {});

  protected readonly note = computed(() => {
    const measures = this.measures();
    if (!('modularity' in measures)) return '';
    const [communities, isolates] = [Number(measures['communities']), Number(measures['isolates'])];
    const found = counted(communities - isolates, 'community', 'communities');
    return `modularity ${Number(measures['modularity']).toFixed(2)} · ${found} (Louvain) · ${this.between()}`;
  });

  /** Whether betweenness was to come and was not finished. */
  protected readonly isLost = computed(() => {
    const id = this.session.network()?.id;
    const last = this.steps().find(
      ({ kind, parameters }) => kind === 'measure-betweenness' && parameters['network'] === id,
    );
    return (
      !('exact' in this.measures()) && last !== undefined && last.state !== 'done' && last.state !== 'running'
    );
  });

  protected compute(): void {
    const network = this.session.network();
    if (!network) return;
    const seed = Number(this.measures()['seed'] ?? 1);
    // The map reads the network again once the list of networks says that it is there.
    this.run.start(network.study, 'measure-betweenness', { network: network.id, seed }, () => undefined);
  }

  private between(): string {
    const measures = this.measures();
    if (!('exact' in measures))
      return this.isLost() && !this.run.busy() ? 'no betweenness' : 'betweenness follows';
    return measures['exact']
      ? 'betweenness exact'
      : `betweenness from ${formatCount(Number(measures['pivots']))} sampled starts`;
  }
}
