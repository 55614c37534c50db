import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { Router } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatButtonToggle, MatButtonToggleGroup } from '@angular/material/button-toggle';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { AGREED, type Network } from '@pebble/contract';
import { formatCount } from '@pebble/core/first';
import { stepRun } from '../../shared/step-run';
import { AgreementView } from './agreement-view';
import { CodebookEditor } from './codebook-editor';
import { Coding } from './coding';
import { CodingQueue } from './coding-queue';
import { SampleForm } from './sample-form';

const PARTS = ['queue', 'agreement', 'codebook'] as const;

/** Close reading: a codebook, messages that are coded one by one, and how far coders agree. */
@Component({
  selector: 'pt-codes-view',
  imports: [
    AgreementView,
    CodebookEditor,
    CodingQueue,
    MatButton,
    MatButtonToggle,
    MatButtonToggleGroup,
    MatFormField,
    MatInput,
    SampleForm,
  ],
  providers: [Coding],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './codes-view.html',
  styleUrls: ['../common/cells.scss', '../common/view.scss', './codes-view.scss'],
})
export class CodesView {
  readonly study = input.required<string>();
  /** The network that samples can be drawn from, and nodes of which can be coloured; null where there is none. */
  readonly network = input.required<Network | null>();
  readonly column = input.required<string>();
  /** From the address: what is shown, and of which sample. */
  readonly show = input<string>();
  readonly sample = input<string>();
  private readonly router = inject(Router);
  protected readonly coding = inject(Coding);
  protected readonly forgetting = stepRun();
  protected readonly sharing = stepRun();
  protected readonly shared = signal<string | null>(null);
  protected readonly count = formatCount;
  protected readonly isDrawing = signal(false);
  /** What the address asks for; it may be of another view. */
  private readonly asked = computed(() => PARTS.find((part) => part === this.show()));
  protected readonly part = computed(() => this.asked() ?? 'queue');
  /** The sample that is looked at: the one of the address, or the newest. */
  protected readonly current = computed(() => {
    const all = this.coding.samples();
    return all.find(({ id }) => String(id) === this.sample()) ?? all.at(0) ?? null;
  });

  constructor() {
    effect(() => {
      const study = this.study();
      untracked(() => this.coding.open(study));
    });
    effect(() => {
      // A codebook comes first; it stays open when the first codes are kept.
      const isEmpty = this.coding.book()?.codes.length === 0;
      if (isEmpty && untracked(this.asked) === undefined) untracked(() => this.choose('codebook'));
    });
  }

  protected choose(show: string): void {
    this.go({ show });
  }

  protected open(sample: number | string): void {
    this.isDrawing.set(false);
    this.go({ sample: String(sample) });
  }

  private go(queryParams: Record<string, string>): void {
    void this.router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl: true });
  }

  protected call(name: string): void {
    // What is agreed on has a place of its own.
    if (name.trim().toLowerCase() !== AGREED) this.coding.call(name);
  }

  protected forget(): void {
    const sample = this.current();
    if (!sample) return;
    this.forgetting.start(this.study(), 'forget-sample', { sample: sample.id, name: sample.name }, () =>
      this.coding.read(),
    );
  }

  /** Gives the nodes of the network their share of a code, to be coloured by. */
  protected share(code: string): void {
    const network = this.network();
    if (!network || code === '') return;
    this.shared.set(null);
    this.sharing.start(
      this.study(),
      'share-of-code',
      { network: network.id, code: Number(code) },
      ({ sentence }) =>
        this.shared.set(`${sentence} On the map, choose it as colour of nodes, or of ties (by a number).`),
    );
  }
}
