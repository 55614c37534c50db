import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import {
  computeFormula,
  FORMULA_FUNCTIONS,
  FormulaError,
  formatCount,
  formatValue,
  nodeLabels,
  topNodes,
} from '@pebble/core';
import { stepRun } from '../../shared/step-run';
import { MapSession } from '../session/map-session';
import { Busy } from '../../shared/busy';

/** What a formula would give, or why it gives nothing. */
type Trial = { readonly says: string } | { readonly problem: string };

/** A column of one's own, by a formula over the others; what it would give follows while one types. */
@Component({
  selector: 'pt-formula-form',
  imports: [MatInput, MatFormField, MatButton, Busy, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-form-field class="name"><input matInput
      maxlength="60"
      placeholder="name"
      aria-label="Name of the column"
      [ngModel]="name()"
      (ngModelChange)="name.set($event)" /></mat-form-field>
    =
    <mat-form-field class="formula"><input matInput
      maxlength="2000"
      placeholder="for instance [in-degree] / max([in-degree])"
      aria-label="Formula"
      [ngModel]="formula()"
      (ngModelChange)="formula.set($event)"
      (keydown.enter)="compute()" /></mat-form-field>
    <mat-form-field><select matNativeControl aria-label="Put a column in" [ngModel]="''" (ngModelChange)="put($event)">
      <option value="">put a column in</option>
      @for (one of columns(); track one.name) {
        <option [value]="one.title">{{ one.title }}</option>
      }
    </select></mat-form-field>
    <button matButton="filled" [disabled]="!isReady()" [ptBusy]="run.busy()" (click)="compute()">
      {{ run.busy() ? 'Computing …' : 'Compute' }}
    </button>
    <button matButton="outlined" [disabled]="!canBeEmpty()" [ptBusy]="run.busy()" (click)="makeEmpty()">
      Make it empty, to be filled in by hand
    </button>
    @if (run.problem(); as problem) {
      <p class="error" role="alert">{{ problem }}</p>
    } @else {
      <p class="soft" aria-live="polite">{{ note() }}</p>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px;
      padding: 6px 18px;
      background: var(--sheet);
      border-bottom: 1px solid var(--line);
      font-size: 13.5px;
    }
    .name {
      width: 150px;
    }
    .formula {
      flex: 1;
      min-width: 240px;
    }
    mat-form-field:not(.name, .formula) {
      max-width: 160px;
    }
    p {
      flex-basis: 100%;
      margin: 0;
    }
  `,
})
export class FormulaForm {
  /** The column was computed. */
  readonly computed = output();
  private readonly session = inject(MapSession);
  protected readonly run = stepRun();
  protected readonly name = signal('');
  protected readonly formula = signal('');
  protected readonly columns = computed(() => {
    const nodes = this.session.data()?.nodes ?? {};
    return (this.session.network()?.columns ?? []).filter(({ name }) => name in nodes);
  });
  private readonly trial = computed<Trial | null>(() => {
    const data = this.session.data();
    if (!data || this.formula().trim() === '') return null;
    try {
      const { values, without } = computeFormula(this.formula(), data.nodes, this.columns(), data.nodeCount);
      const labels = nodeLabels(data.nodes);
      const top = topNodes(values, 3).map((node) => `${labels[node]} ${formatValue(values[node])}`);
      const none = without > 0 ? ` ${formatCount(without)} have no value.` : '';
      return { says: top.length > 0 ? `Highest: ${top.join(', ')}.${none}` : 'No node would have a value.' };
    } catch (error) {
      if (error instanceof FormulaError) return { problem: error.message };
      throw error;
    }
  });
  protected readonly note = computed(() => {
    const trial = this.trial();
    if (trial === null)
      return `Columns stand in [square brackets]; + − * / ^, = <> < > compare; functions: ${FORMULA_FUNCTIONS.join(', ')}.`;
    return 'problem' in trial ? trial.problem : trial.says;
  });
  protected readonly isReady = computed(() => {
    const trial = this.trial();
    return this.name().trim() !== '' && trial !== null && 'says' in trial;
  });

  protected readonly canBeEmpty = computed(() => this.name().trim() !== '' && this.formula().trim() === '');

  protected makeEmpty(): void {
    const network = this.session.network();
    if (!network || !this.canBeEmpty()) return;
    const asked = { network: network.id, nodes: [], column: this.name().trim(), value: '' };
    this.run.start(network.study, 'mark-nodes', asked, () => {
      void this.session.refresh();
      this.computed.emit();
    });
  }

  protected put(title: string): void {
    if (title) this.formula.update((before) => `${before}[${title}]`);
  }

  protected compute(): void {
    const network = this.session.network();
    if (!network || !this.isReady()) return;
    const asked = { network: network.id, name: this.name().trim(), formula: this.formula().trim() };
    this.run.start(network.study, 'compute-column', asked, () => {
      void this.session.refresh();
      this.computed.emit();
    });
  }
}
