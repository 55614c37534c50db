import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatDialogActions, MatDialogContent, MatDialogRef, MatDialogTitle } from '@angular/material/dialog';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatProgressBar } from '@angular/material/progress-bar';
import { type Network, type PageMessages, type SharedPageQuery } from '@pebble/contract';
import { counted, neededColumns, type TableColumns } from '@pebble/core';
import { Api, pathOf } from '../api/api';
import { Plates } from '../map/plates/plates';
import { MapSession } from '../map/session/map-session';
import { Busy } from '../shared/busy';
import { saving } from '../shared/saving';
import { SavingNote } from '../shared/saving-note';
import { Notices } from '../store/notices';
import { LeakGuard } from '../shared/leaks/leak-guard';
import { checking } from './credits/checking';
import { CreditFields } from './credits/credit-fields';
import { Credits } from './credits/credits';

const MESSAGES: readonly { readonly messages: PageMessages; readonly words: string }[] = [
  { messages: 'none', words: 'nothing' },
  { messages: 'counts', words: 'their numbers, by kind' },
  { messages: 'texts', words: 'texts, up to five of each of the 1,000 strongest ties' },
];

/** Chooses what a page of the map holds, says how large it would be, and saves it. */
@Component({
  selector: 'pt-page-to-share',
  imports: [
    Busy,
    CreditFields,
    FormsModule,
    MatButton,
    MatCheckbox,
    MatDialogActions,
    MatDialogContent,
    MatDialogTitle,
    MatFormField,
    MatInput,
    MatProgressBar,
    SavingNote,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './page-to-share.html',
  styleUrls: ['./fields.scss', './page-to-share.scss'],
})
export class PageToShare {
  private readonly api = inject(Api);
  private readonly session = inject(MapSession);
  private readonly notices = inject(Notices);
  private readonly plates = inject(Plates);
  private readonly guard = inject(LeakGuard);
  private readonly credits = inject(Credits);
  protected readonly dialog = inject<MatDialogRef<PageToShare>>(MatDialogRef);
  protected readonly network = this.session.network() as Network;
  protected readonly saving = saving();
  protected readonly offers = MESSAGES;

  protected readonly plate = signal<number | null>(null);
  protected readonly ofNetwork = computed(() =>
    (this.plates.all() ?? []).filter(
      ({ network, today: { what } }) => network === this.network.id && what !== 'not drawn',
    ),
  );
  protected readonly title = signal('');
  protected readonly usualTitle = computed(
    () => this.ofNetwork().find(({ id }) => id === this.plate())?.title ?? this.network.name,
  );
  protected readonly messages = signal<PageMessages>('none');
  protected readonly texts = signal<'whole' | 'short'>('whole');
  protected readonly days = signal(true);
  protected readonly portraits = signal(true);
  protected readonly hasMessages = 'messages' in (this.session.data()?.nodes ?? {});
  /** Columns that can be left out: all but those that the map is drawn by. */
  protected readonly columns = this.columnsToChoose();
  protected readonly chosen = signal<ReadonlySet<string>>(new Set());

  protected readonly query = computed<SharedPageQuery>(() => {
    const plate = this.plate();
    return {
      ...(plate === null ? {} : { plate }),
      title: this.title().trim(),
      author: this.credits.author().trim(),
      licence: this.credits.licence().trim(),
      columns: [...this.chosen()].join('|'),
      messages: this.messages(),
      texts: this.texts(),
      days: this.days() ? 'true' : 'false',
      portraits: this.portraits() ? 'true' : 'false',
    };
  });
  protected readonly check = checking(this.query, (query) =>
    this.api.sharedPageCheck(pathOf(this.network), query),
  );
  protected readonly sizePhrase = computed(() => {
    const check = this.check.found();
    if (!check) return '';
    const texts = check.texts > 0 ? `, with the texts of ${counted(check.texts, 'message')}` : '';
    return `${(check.bytes / 1e6).toFixed(2)} MB${texts}.`;
  });
  protected toggle(name: string, isIn: boolean): void {
    const chosen = new Set(this.chosen());
    if (isIn) chosen.add(name);
    else chosen.delete(name);
    this.chosen.set(chosen);
  }

  protected async save(): Promise<void> {
    const check = this.check.found();
    const query = this.query();
    if (!check) return;
    const allowed = await this.guard.found(check.leaks);
    if (allowed === 'no') return;
    const { study, id: network } = this.network;
    const parameters = { ...query, network, bytes: check.bytes, allowed };
    const name = `${query.title || this.usualTitle()}.html`;
    const bytes = this.api.sharedPage(pathOf(this.network), query);
    this.saving.start(bytes, { study, kind: 'export-page', parameters, name, type: 'text/html' }, () => {
      this.notices.say('The page was saved; it opens in any browser, from disk or from any web server.');
      this.dialog.close();
    });
  }

  private columnsToChoose(): { name: string; title: string; how: string }[] {
    const nodes: TableColumns = this.session.data()?.nodes ?? {};
    const needed = neededColumns(this.session.description(), nodes);
    return this.network.columns.filter(({ name }) => name in nodes && !needed.has(name));
  }
}
