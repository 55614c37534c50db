import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import {
  MatExpansionPanel,
  MatExpansionPanelHeader,
  MatExpansionPanelTitle,
} from '@angular/material/expansion';
import { checkFigure, type Finding } from '@pebble/core';
import { MapSession } from '../map/session/map-session';
import { FigureDraft } from './figure-draft';
import { PublishedNames } from './people/published-names';
import { IN_PRINT } from './figure-sizes';

/** What a reader of the figure could stumble over, before it is saved. */
@Component({
  selector: 'pt-figure-findings',
  imports: [MatExpansionPanel, MatExpansionPanelHeader, MatExpansionPanelTitle],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (findings().length > 0) {
      <mat-expansion-panel class="told mat-elevation-z0">
        <mat-expansion-panel-header>
          <mat-panel-title>{{ title() }}</mat-panel-title>
        </mat-expansion-panel-header>
        <ul>
          @for (one of findings(); track one.words) {
            <li [class.good]="one.isGood">
              <span class="mark">{{ one.isGood ? 'good' : 'look' }}</span> {{ one.words }}
            </li>
          }
        </ul>
      </mat-expansion-panel>
    }
  `,
  styles: `
    mat-expansion-panel-header {
      padding: 0 6px 0 2px;
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      display: grid;
      grid-template-columns: 44px 1fr;
      gap: 4px;
      padding: 5px 0;
      border-top: 1px solid var(--line);
      overflow-wrap: anywhere;
    }
    .mark {
      color: var(--thread);
      font-weight: 600;
    }
    .good {
      color: var(--soft);
    }
    .good .mark {
      color: var(--tide);
    }
  `,
})
export class FigureFindings {
  private readonly draft = inject(FigureDraft);
  private readonly session = inject(MapSession);
  private readonly names = inject(PublishedNames);

  /** What is to be looked at stands first. */
  protected readonly findings = computed<readonly Finding[]>(() => {
    const scene = this.draft.scene();
    const smallest = this.draft.smallest();
    const maps = this.draft.isPage() ? (this.draft.parts() ?? []) : this.open();
    if (!scene || smallest === null || maps.length === 0) return [];
    const least = this.draft.purpose()?.letters ?? IN_PRINT;
    const caption = !this.draft.withCaption()
      ? 'none'
      : this.draft.isPage() && this.draft.ownCaption() !== null
        ? 'by hand'
        : 'of the map';
    const all = checkFigure({
      scene,
      maps,
      letters: { smallest, least },
      caption,
      isHidden: this.names.isHidden(),
    });
    return [...all.filter(({ isGood }) => !isGood), ...all.filter(({ isGood }) => isGood)];
  });
  protected readonly title = computed(() => {
    const count = this.findings().filter(({ isGood }) => !isGood).length;
    return count === 0 ? 'Before you save: all is good' : `Before you save: ${count} to look at`;
  });

  private open() {
    const [map, network] = [this.draft.map(), this.session.network()];
    return map && network ? [{ map, network }] : [];
  }
}
