import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { Busy } from '../../shared/busy';
import { MapSession } from '../session/map-session';
import { PlateList } from './plate-list';
import { Plates } from './plates';

/** The plates of a study beside its map. */
@Component({
  selector: 'pt-plates-panel',
  imports: [MatButton, Busy, PlateList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>Plates <button matButton (click)="closed.emit()">Close</button></h3>
    <p>
      <button matButton="filled" [disabled]="!isReady()" [ptBusy]="plates.run.busy()" (click)="plates.keep()">
        Keep this map
      </button>
      <span class="faint">what is shown, how it looks, where nodes are</span>
    </p>
    @if (session.network(); as network) {
      <pt-plate-list [study]="network.study" />
    }
  `,
  styleUrl: '../panels/corner-panel.scss',
  styles: `
    p {
      display: flex;
      gap: 8px;
      align-items: center;
      margin: 0 0 10px;
    }
  `,
})
export class PlatesPanel {
  readonly closed = output();
  protected readonly plates = inject(Plates);
  protected readonly session = inject(MapSession);
  protected readonly isReady = computed(
    () => this.session.places() !== null && this.session.layout().what !== 'running',
  );
}
