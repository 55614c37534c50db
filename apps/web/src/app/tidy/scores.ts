import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import type { Scorer, Step } from '@pebble/contract';
import { Store } from '@ngrx/store';
import { Api } from '../api/api';
import { work } from '../store/work.reducer';
import { Busy } from '../shared/busy';

interface Card {
  readonly scorer: Scorer;
  readonly title: string;
  readonly about: string;
  readonly limits: string;
}

const CARDS: readonly Card[] = [
  {
    scorer: 'tone',
    title: 'Tone, from −1 to 1',
    about:
      'The mean weight of the words that stand in AFINN-165, a published list of English words from −5 to 5 (Nielsen 2011); a word after a negation counts the other way round, by half.',
    limits: 'It knows single words. Irony, quotations, and who is praised or blamed, it cannot know.',
  },
  {
    scorer: 'incivility',
    title: 'Incivility, from 0 to 1',
    about:
      'Belittling and coarse words, threats and shouting, by our own lists: several together weigh more than one, and words meant for “you” more than others.',
    limits:
      'It cannot know irony, quotations, what friends call each other, nor incivility without such words. By common practice 0.7 casts a wide net, 0.9 finds severe cases only.',
  },
];

/** Scores of messages by their texts: run them, and read what made them. */
@Component({
  selector: 'pt-scores',
  imports: [MatButton, Busy, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (card of cards; track card.scorer) {
      @let step = latest()[card.scorer];
      <section>
        <h2>{{ card.title }}</h2>
        <p>{{ card.about }}</p>
        <p class="soft">{{ card.limits }} English alone.</p>
        @if (step) {
          <p class="says">{{ step.sentence }}</p>
        }
        <button matButton="outlined" [class.go]="!step" [ptBusy]="busy() !== null" (click)="run(card.scorer)">
          {{ busy() === card.scorer ? 'Scoring …' : step ? 'Score again' : 'Score the messages' }}
        </button>
        @if (step) {
          <a matButton [routerLink]="['/studies', study(), 'gather']" [queryParams]="{ scored: card.scorer }">Read by {{ card.scorer }}</a>
        }
      </section>
    }
    @if (problem()) {
      <p class="error" role="alert">{{ problem() }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 26px;
      max-width: 980px;
    }
    section {
      border-top: 2px solid var(--line);
      padding-top: 8px;
    }
    p {
      margin: 0 0 8px;
    }
    .says {
      font: 15px/1.4 var(--serif);
    }
  `,
})
export class Scores {
  private readonly api = inject(Api);
  private readonly steps = inject(Store).selectSignal(work.selectSteps);
  readonly study = input.required<string>();
  protected readonly cards = CARDS;
  protected readonly busy = signal<Scorer | null>(null);
  protected readonly problem = signal<string | null>(null);
  /** The latest run of each scorer; the newest steps come first. */
  protected readonly latest = computed(() => {
    const runs: Partial<Record<string, Step>> = {};
    for (const step of this.steps())
      if (step.kind === 'score-messages' && step.state === 'done')
        runs[String(step.parameters['scorer'])] ??= step;
    return runs;
  });

  protected run(scorer: Scorer): void {
    this.busy.set(scorer);
    this.problem.set(null);
    this.api.step(this.study(), 'score-messages', { scorer }).subscribe({
      next: ({ state, error }) => {
        this.busy.set(null);
        if (state !== 'done') this.problem.set(error ?? 'The scoring was stopped. Nothing of it was kept.');
      },
      error: (error: Error) => {
        this.busy.set(null);
        this.problem.set(error.message);
      },
    });
  }
}
