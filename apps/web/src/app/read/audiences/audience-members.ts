import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  model,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatButtonToggle, MatButtonToggleGroup } from '@angular/material/button-toggle';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { Router } from '@angular/router';
import type { AudienceMembers, AudiencesRequest, Network } from '@pebble/contract';
import { handleKey, saveableCsv } from '@pebble/core';
import { counted, formatCount } from '@pebble/core/first';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../api/api';
import { MapSession } from '../../map/session/map-session';
import { Busy } from '../../shared/busy';
import { saveFile } from '../../shared/save-file';
import { stepRun } from '../../shared/step-run';
import { Notices } from '../../store/notices';
import { AUDIENCE_WORDS, questionWords, type Wanted } from './audience-words';

/** What was marked in a network. */
interface MarkedNodes {
  readonly network: string;
  readonly column: string;
  readonly sentence: string;
}

const PAGE = 50;
/** Members that are saved with one question. */
const TOGETHER = 100_000;
/** Members of which a category is made at most: each is a decision of its own. */
const MOST_DECISIONS = 5000;

/** Who is in some audiences and not in others: a question in words, and its members. */
@Component({
  selector: 'pt-audience-members',
  imports: [
    Busy,
    FormsModule,
    MatButton,
    MatButtonToggle,
    MatButtonToggleGroup,
    MatFormField,
    MatInput,
    MatTooltip,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './audience-members.html',
  styleUrls: ['../common/cells.scss', './audience-members.scss'],
})
export class AudienceMembersView {
  readonly study = input.required<string>();
  readonly asked = input.required<Pick<AudiencesRequest, 'sort' | 'network'>>();
  /** In which members can be marked: the one that is read, or the one of two sorts that was asked for; null where there is none. */
  readonly network = input.required<Network | null>();
  /** Of the sets. */
  readonly names = input.required<readonly string[]>();
  /** What is asked of each of them. */
  readonly wanted = model.required<readonly Wanted[]>();
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  private readonly session = inject(MapSession);
  protected readonly marking = stepRun();
  protected readonly members = signal<AudienceMembers | null>(null);
  protected readonly error = signal<string | null>(null);
  protected readonly count = formatCount;
  protected readonly counted = counted;
  protected readonly isSaving = signal(false);
  /** The category that is made of the members, and which one they are. */
  protected readonly category = signal('audience');
  protected readonly value = signal('');
  /** What was marked last. */
  protected readonly marked = signal<MarkedNodes | null>(null);
  protected readonly words = computed(() => AUDIENCE_WORDS[this.asked().sort]);
  protected readonly question = computed(() => {
    const [one, many] = this.words().does;
    return questionWords(this.members()?.total === 1 ? one : many, this.names(), this.wanted());
  });

  constructor() {
    effect((onCleanup) => {
      const request = this.request(0, PAGE);
      this.members.set(null);
      this.marked.set(null);
      this.error.set(null);
      // Not by the question in words: that says one or many, and so depends on the answer.
      if (!request || request.inside.length + request.outside.length === 0) return;
      const reading = this.api.audienceMembers({ study: untracked(this.study) }, request).subscribe({
        next: (members) => this.members.set(members),
        error: (error: Error) => this.error.set(error.message),
      });
      onCleanup(() => reading.unsubscribe());
    });
  }

  /** What is asked of one of the sets. */
  protected want(at: number, wanted: Wanted): void {
    this.wanted.update((all) => all.map((one, i) => (i === at ? wanted : one)));
  }

  protected more(): void {
    const before = this.members();
    const request = this.request(before?.members.length ?? 0, PAGE);
    if (!before || !request) return;
    this.api.audienceMembers({ study: this.study() }, request).subscribe({
      next: ({ members }) => this.members.set({ ...before, members: [...before.members, ...members] }),
      error: (error: Error) => this.error.set(error.message),
    });
  }

  /** Saves all members as CSV. */
  protected async save(): Promise<void> {
    this.isSaving.set(true);
    try {
      const members = await this.all();
      const names = this.names();
      const rows = members.map(({ handle, name, description, sets }) => [
        handle,
        name ?? '',
        description ?? '',
        sets.map((at) => names[at]).join('; '),
      ]);
      const text = `\ufeff${saveableCsv([['handle', 'name', 'description', 'sets'], ...rows])}`;
      saveFile(new Blob([text], { type: 'text/csv;charset=utf-8' }), `${this.question() ?? 'audience'}.csv`);
      this.notices.say(`${counted(members.length, 'row')} saved.`);
    } catch (error) {
      this.error.set((error as Error).message);
    } finally {
      this.isSaving.set(false);
    }
  }

  /** Makes a category of the members, which weaving brings along as a column of the nodes. */
  protected async mark(): Promise<void> {
    const total = this.members()?.total ?? 0;
    const [name, value] = [this.category().trim(), this.value().trim()];
    if (total > MOST_DECISIONS) {
      this.error.set(
        `A category can be made of at most ${formatCount(MOST_DECISIONS)} accounts at once; these are ${formatCount(total)}. Save them as CSV and take the file in under Tidy.`,
      );
      return;
    }
    if (name === '' || value === '') return;
    try {
      const members = await this.all();
      const decisions = members.map(({ handle }) => ({
        key: handleKey(handle),
        verdict: { verdict: 'category' as const, name, value },
      }));
      this.marking.start(this.study(), 'tidy', { sort: 'account', decisions }, () =>
        this.notices.say(
          `${counted(members.length, 'account')} are “${value}” by “${name}”; networks have it once they are woven again.`,
        ),
      );
    } catch (error) {
      this.error.set((error as Error).message);
    }
  }

  /** Gives the members that are nodes of a network a value of a category there. */
  protected markNodes({ id: network, study }: Network): void {
    const request = this.request(0, PAGE);
    const [column, value] = [this.category().trim(), this.value().trim()];
    if (!request || column === '' || value === '') return;
    const { offset: _offset, limit: _limit, ...audience } = request;
    this.marked.set(null);
    this.marking.start(study, 'mark-audience', { network, audience, column, value }, ({ sentence }) =>
      this.marked.set({ network, column, sentence }),
    );
  }

  /** Colours the map by what was marked, and goes there. On a map that is open it can be undone. */
  protected async colour({ network, column }: MarkedNodes): Promise<void> {
    const study = this.study();
    const isOpen = this.session.network()?.id === network;
    try {
      if (isOpen) await this.session.refresh();
      const before = isOpen
        ? this.session.description()
        : (await firstValueFrom(this.api.savedMap({ study, network }))).description;
      const description = { ...before, colour: { ...before.colour, column } };
      if (isOpen) this.session.describe(description);
      else await firstValueFrom(this.api.step(study, 'describe-map', { network, description }));
      await this.router.navigate(['/studies', study, 'map', network]);
    } catch (error) {
      this.error.set((error as Error).message);
    }
  }

  private async all(): Promise<AudienceMembers['members']> {
    const members: AudienceMembers['members'] = [];
    for (;;) {
      const request = this.request(members.length, TOGETHER);
      if (!request) return members;
      const page = await firstValueFrom(this.api.audienceMembers({ study: this.study() }, request));
      members.push(...page.members);
      if (page.members.length === 0 || members.length >= page.total) return members;
    }
  }

  private request(offset: number, limit: number) {
    const asked = this.asked();
    const wanted = this.wanted();
    if (this.names().length === 0) return null;
    const placesOf = (which: Wanted): number[] => wanted.flatMap((one, i) => (one === which ? [i] : []));
    return {
      ...asked,
      names: [...this.names()],
      inside: placesOf('in'),
      outside: placesOf('out'),
      offset,
      limit,
    };
  }
}
