import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, signal } from '@angular/core';
import { MatAutocompleteModule } from '@angular/material/autocomplete';
import { MatDialogRef } from '@angular/material/dialog';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { nodeLabels } from '@pebble/core';
import { MapSession } from '../map/session/map-session';
import { ThemeChoice } from '../shared/theme';
import { StudiesActions } from '../store/studies.actions';
import { studies } from '../store/studies.reducer';
import { work } from '../store/work.reducer';
import { offersFor, type Offer } from './offers';

/** One field from which everything is reached: stops, nodes, networks, studies, steps and messages. */
@Component({
  selector: 'pt-search',
  imports: [MatAutocompleteModule, MatFormField, MatInput],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-form-field>
      <input
        matInput
        cdkFocusInitial
        type="search"
        aria-label="Search for anything"
        placeholder="A stop, a node, a network, a study, a step, or words of messages"
        [matAutocomplete]="auto"
        [value]="typed()"
        (input)="typed.set($any($event.target).value)"
      />
    </mat-form-field>
    <mat-autocomplete #auto autoActiveFirstOption hideSingleSelectionIndicator [displayWith]="asTyped" (optionSelected)="go($event.option.value)">
      @for (section of sections(); track section.name) {
        <mat-optgroup [label]="section.name">
          @for (offer of section.offers; track $index) {
            <mat-option [value]="offer">
              <b>{{ offer.title }}</b> <small>{{ offer.says }}</small>
            </mat-option>
          }
        </mat-optgroup>
      }
    </mat-autocomplete>
  `,
  styles: `
    :host {
      display: block;
      padding: 10px;
    }
    mat-form-field {
      width: 100%;
    }
    b {
      font-weight: 500;
    }
    small {
      color: var(--soft);
      margin-left: 8px;
    }
  `,
})
export class Search {
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly session = inject(MapSession);
  private readonly theme = inject(ThemeChoice);
  private readonly dialog = inject<MatDialogRef<Search>>(MatDialogRef);
  private readonly study = this.store.selectSignal(work.selectStudy);
  private readonly networks = this.store.selectSignal(work.selectNetworks);
  private readonly steps = this.store.selectSignal(work.selectSteps);
  private readonly all = this.store.selectSignal(studies.selectList);
  /** Whether something of the list was gone to by arrows. */
  private isWalked = false;
  protected readonly typed = signal('');
  protected readonly sections = computed(() => {
    const study = this.router.url.startsWith('/studies/') ? this.study() : null;
    const open = this.session.network();
    const data = open?.study === study?.id ? this.session.data() : null;
    return offersFor(this.typed(), {
      study,
      studies: this.all(),
      networks: study ? this.networks() : [],
      steps: study ? this.steps() : [],
      nodes: data ? nodeLabels(data.nodes) : [],
      network: data ? (open?.id ?? null) : null,
    });
  });
  /** What was typed stays in the field while one goes through what is offered. */
  protected readonly asTyped = (): string => this.typed();

  constructor() {
    // Before the list takes the key.
    inject<ElementRef<HTMLElement>>(ElementRef).nativeElement.addEventListener('keydown', this.press, {
      capture: true,
    });
    this.store.dispatch(StudiesActions.listOpened());
  }

  /** Enter goes to the first that fits what is typed by now: the list on the screen may be a moment behind. */
  private readonly press = (event: KeyboardEvent): void => {
    // The list and the field are left together.
    if (event.key === 'Escape') {
      event.stopPropagation();
      return this.dialog.close();
    }
    if (event.key !== 'Enter') {
      this.isWalked = event.key === 'ArrowDown' || event.key === 'ArrowUp';
      return;
    }
    const first = this.sections().at(0)?.offers.at(0);
    if (this.isWalked || !first) return;
    event.preventDefault();
    event.stopPropagation();
    this.go(first);
  };

  protected go({ to }: Offer): void {
    this.dialog.close();
    if (to.what === 'theme') this.theme.toggle();
    else void this.router.navigate([...to.commands], { queryParams: to.query });
  }
}
