import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { QuestionSettings, type QuestionId } from '@pebble/contract';
import {
  formatValue,
  NODE_QUESTIONS,
  nodeLabels,
  numbersOf,
  sortsIn,
  whyNotAsked,
  type MeasureColumn,
  type Question,
} from '@pebble/core';
import { Store } from '@ngrx/store';
import { Notices } from '../shared/notices';
import { stepRun } from '../shared/step-run';
import { MapActions } from '../store/map.actions';
import { MapSession } from './map-session';

/** So many of those with the highest values are named. */
const NAMED = 3;

interface Top {
  readonly node: number;
  readonly label: string;
  readonly value: string;
}

interface Answer extends MeasureColumn {
  readonly top: readonly Top[];
  /** How many nodes have no value. */
  readonly without: number;
}

/** Questions about the nodes of the network, each with the measures that answer it; what is computed becomes columns. */
@Component({
  selector: 'pt-question-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="lede">
      Measures of the whole network, also of what the map hides. They become columns: for size, names, tables and export.
      @if (open().length > 1) {
        <button class="btn" [disabled]="busy()" (click)="ask(open())">
          {{ busy() ? 'Computing …' : 'Answer all ' + open().length }}
        </button>
      }
    </p>
    @if (problem()) {
      <p class="error" role="alert">{{ problem() }}</p>
    }
    <div class="questions">
      @for (q of questions(); track q.id) {
        <section [attr.aria-label]="q.asks">
          <h3>{{ q.asks }}</h3>
          <p>{{ q.says }}</p>
          @for (answer of answers().get(q.id) ?? []; track answer.name) {
            <div class="answer">
              <b [title]="answer.how">{{ answer.title }}</b>
              <span class="high">{{ answer.high }}:</span>
              @for (one of answer.top; track one.node) {
                <button class="btn plain" (click)="select(one.node)">{{ one.label }} <i>{{ one.value }}</i></button>
              }
              <button class="btn small" [attr.aria-pressed]="isSize(answer)" (click)="sizeBy(answer)">
                {{ isSize(answer) ? 'is the size' : 'Size by it' }}
              </button>
              @if (answer.without > 0) {
                <span class="faint">none for {{ answer.without.toLocaleString('en') }}</span>
              }
            </div>
          } @empty {
            @if (whyNot(q); as why) {
              <p class="faint">{{ why }}</p>
            } @else {
            <button class="btn" [disabled]="busy()" (click)="ask([q.id])">
              {{ busy() && asked().includes(q.id) ? 'Computing …' : 'Answer it' }}
            </button>
            }
          }
          <p class="misleads"><b>Beware:</b> {{ q.misleads }}</p>
        </section>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      overflow: auto;
      padding: 4px 18px 16px;
      min-height: 0;
      flex: 1;
      background: var(--sheet);
    }
    .lede {
      margin: 8px 0;
      color: var(--soft);
    }
    .questions {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(400px, 1fr));
      gap: 14px 26px;
    }
    section {
      border-top: 1px solid var(--line);
      padding-top: 8px;
    }
    h3 {
      margin: 0 0 2px;
      font: 500 17px/1.3 var(--serif);
    }
    p {
      margin: 0 0 5px;
      font-size: 13.5px;
    }
    .answer {
      display: flex;
      flex-wrap: wrap;
      align-items: baseline;
      gap: 2px 8px;
      font-size: 13.5px;
      margin: 3px 0;
    }
    .answer b {
      cursor: help;
    }
    .answer .plain {
      padding: 0 2px;
    }
    .high {
      color: var(--soft);
    }
    i {
      font-style: normal;
      color: var(--soft);
      font-variant-numeric: tabular-nums;
    }
    .small {
      padding: 0 8px;
      font-size: 12.5px;
    }
    .misleads {
      color: var(--soft);
      font-size: 12.5px;
    }
  `,
})
export class QuestionList {
  private readonly notices = inject(Notices);
  private readonly store = inject(Store);
  private readonly session = inject(MapSession);
  private readonly run = stepRun();
  protected readonly asked = signal<readonly QuestionId[]>([]);
  protected readonly busy = this.run.busy;
  protected readonly problem = this.run.problem;
  private readonly isTwoMode = computed(() => {
    const data = this.session.data();
    return data !== null && sortsIn(data.nodes, data.edges) !== null;
  });
  protected readonly questions = computed(() =>
    NODE_QUESTIONS.filter(
      (question) =>
        (!question.directedOnly || (this.session.network()?.directed ?? true)) &&
        (this.isTwoMode() || whyNotAsked(question, false) === null),
    ),
  );
  protected readonly answers = computed(() => {
    const data = this.session.data();
    const answered = this.questions().filter(({ columns }) => data && columns[0].name in data.nodes);
    const labels = data ? nodeLabels(data.nodes) : [];
    return new Map(
      answered.map(({ id, columns }: Question) => [
        id,
        columns.map((column) => answerOf(column, numbersOf(data!.nodes, column.name), labels)),
      ]),
    );
  });
  protected readonly open = computed(() =>
    this.questions()
      .filter((question) => this.whyNot(question) === null)
      .map(({ id }) => id)
      .filter((id) => !this.answers().has(id)),
  );

  /** Why a question makes no sense of this network. */
  protected whyNot(question: Question): string | null {
    return whyNotAsked(question, this.isTwoMode());
  }

  protected ask(questions: readonly QuestionId[]): void {
    const network = this.session.network();
    if (!network) return;
    this.asked.set(questions);
    const parameters = {
      network: network.id,
      questions: [...questions],
      settings: QuestionSettings.parse({}),
    };
    this.run.start(network.study, 'answer-questions', parameters, ({ result }) => {
      for (const note of (result?.['notes'] ?? []) as string[]) this.notices.say(note);
      void this.session.refresh();
    });
  }

  protected select(node: number): void {
    this.store.dispatch(MapActions.nodeSelected({ node }));
  }

  protected isSize({ name }: MeasureColumn): boolean {
    return this.session.description().size.column === name;
  }

  protected sizeBy({ name }: MeasureColumn): void {
    const before = this.session.description();
    const description = { ...before, size: { ...before.size, column: name } };
    this.store.dispatch(MapActions.descriptionChanged({ description }));
  }
}

/** Those with the highest values; of equal ones the first. */
function answerOf(column: MeasureColumn, values: ArrayLike<number>, labels: readonly string[]): Answer {
  const given = [...labels.keys()].filter((v) => !Number.isNaN(values[v]));
  const top = given.sort((a, b) => values[b] - values[a] || a - b).slice(0, NAMED);
  return {
    ...column,
    top: top.map((node) => ({ node, label: labels[node], value: formatValue(values[node]) })),
    without: labels.length - given.length,
  };
}
