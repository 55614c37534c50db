import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { QuestionSettings, type QuestionId } from '@pebble/contract';
import {
  formatCount,
  formatValue,
  NODE_QUESTIONS,
  nodeLabels,
  numbersOf,
  secondsFor,
  shownPhrase,
  sortsIn,
  whyNotAsked,
  type MeasureColumn,
  type Question,
} from '@pebble/core';
import { Notices } from '../../store/notices';
import { stepRun } from '../../shared/step-run';
import { groupingsOf } from '../session/grouping';
import { MapSession } from '../session/map-session';
import { Busy } from '../../shared/busy';
import { CountPipe } from '../../shared/count-pipe';
import { draftOf } from '../../shared/draft';

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
  imports: [CountPipe, MatTooltip, MatInput, MatFormField, MatButton, Busy, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './question-list.html',
  styleUrl: './question-list.scss',
})
export class QuestionList {
  private readonly notices = inject(Notices);
  private readonly session = inject(MapSession);
  private readonly run = stepRun();
  protected readonly asked = signal<readonly QuestionId[]>([]);
  protected readonly busy = this.run.busy;
  protected readonly problem = this.run.problem;
  protected readonly part = signal<'whole' | 'shown'>('whole');
  protected readonly damping = signal(QuestionSettings.parse({}).damping);
  protected readonly groupings = computed(() => groupingsOf(this.session.network(), this.session.data()));
  protected readonly groups = draftOf(() => this.groupings().at(0)?.name ?? 'community');
  /** How many nodes and ties the part has that is asked about. */
  protected readonly counts = computed(() => {
    const [data, map] = [this.session.data(), this.session.prepared()];
    const pale = map?.pale?.reduce((sum, one) => sum + one, 0) ?? 0;
    const shown = (map?.nodes.length ?? 0) - pale;
    return this.part() === 'shown'
      ? { shown: formatCount(shown), nodes: shown, ties: map?.edges.length ?? 0 }
      : { shown: formatCount(shown), nodes: data?.nodeCount ?? 0, ties: this.session.network()?.edges ?? 0 };
  });
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
    const labels = data ? nodeLabels(data.nodes) : [];
    const found = this.questions().map(({ id, columns }) => {
      const here = columns
        .map((column) => ({ ...column, name: this.columnOf(column) }))
        .filter(({ name }) => data !== null && name in data.nodes);
      return [
        id,
        here.map((column) => answerOf(column, numbersOf(data!.nodes, column.name), labels)),
      ] as const;
    });
    return new Map(found.filter(([, answers]) => answers.length > 0));
  });
  protected readonly answered = computed(() => [...this.answers().keys()]);
  protected readonly open = computed(() =>
    this.questions()
      .filter((question) => this.whyNot(question) === null)
      .map(({ id }) => id)
      .filter((id) => !this.answers().has(id)),
  );
  /** Of which part the answers are, where it is another than the one that is shown. */
  protected readonly another = computed(() => {
    if (this.part() === 'whole') return null;
    const now = JSON.stringify(this.session.description().show);
    const names = new Set([...this.answers().values()].flat().map(({ name }) => name));
    const columns = this.session.network()?.columns ?? [];
    const other = columns.find(
      ({ name, shown }) => names.has(name) && shown !== undefined && JSON.stringify(shown) !== now,
    );
    return other?.shown ? shownPhrase(other.shown) || 'the whole' : null;
  });

  /** Why a question makes no sense of this network. */
  protected whyNot(question: Question): string | null {
    return whyNotAsked(question, this.isTwoMode());
  }

  /** "about 4 s", where it is more than one. */
  protected time(id: QuestionId): string | null {
    const seconds = secondsFor(id, this.counts().nodes, this.counts().ties);
    return seconds >= 1 ? `about ${formatCount(Math.ceil(seconds))} s` : null;
  }

  protected setDamping(value: number): void {
    if (value >= 0.01 && value <= 0.99) this.damping.set(value);
  }

  private columnOf({ name, title }: MeasureColumn): string {
    return this.part() === 'whole' ? name : `${title}, shown`;
  }

  protected ask(questions: readonly QuestionId[]): void {
    const network = this.session.network();
    if (!network) return;
    this.asked.set(questions);
    const parameters = {
      network: network.id,
      questions: [...questions],
      settings: QuestionSettings.parse({ damping: this.damping(), groups: this.groups() }),
      shown: this.part() === 'whole' ? null : this.session.description().show,
    };
    this.run.start(network.study, 'answer-questions', parameters, ({ result }) => {
      for (const note of (result?.['notes'] ?? []) as string[]) this.notices.say(note);
      void this.session.refresh();
    });
  }

  protected select(node: number): void {
    this.session.selectNode(node);
  }

  protected isSize({ name }: MeasureColumn): boolean {
    return this.session.description().size.column === name;
  }

  protected sizeBy({ name }: MeasureColumn): void {
    const before = this.session.description();
    const description = { ...before, size: { ...before.size, column: name } };
    this.session.describe(description);
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
