import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField, MatLabel } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { TidyKind, type Naming, type NamingForm } from '@pebble/contract';
import { counted, joinWith } from '@pebble/core';
import { MapSession } from '../../map/session/map-session';
import { Busy } from '../../shared/busy';
import { draftOf } from '../../shared/draft';
import { ForGood } from '../../shared/for-good';
import { SaveData } from '../../shared/save-data';
import { stepRun } from '../../shared/step-run';
import { Notices } from '../../store/notices';
import { PublishedNames } from './published-names';

const FORMS: readonly { readonly form: NamingForm; readonly words: string }[] = [
  { form: 'as they are', words: 'as they are' },
  { form: 'words', words: 'two words, as “amber heron”' },
  { form: 'numbers', words: 'a number, as “account 12”' },
  { form: 'category', words: 'a category and a number' },
];

/** Kinds of accounts that are not persons stand first: these keep their names most often. */
const KINDS: readonly TidyKind[] = ['organisation', 'press', 'place', 'bot-like', 'person'];

/** How people are called in all that is published of a study. */
@Component({
  selector: 'pt-people-fields',
  imports: [Busy, ForGood, FormsModule, MatButton, MatCheckbox, MatFormField, MatInput, MatLabel, SaveData],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './people-fields.html',
  styleUrls: ['../fields.scss', './people-fields.scss'],
})
export class PeopleFields {
  readonly study = input.required<string>();
  private readonly session = inject(MapSession);
  private readonly notices = inject(Notices);
  protected readonly names = inject(PublishedNames);
  protected readonly forms = FORMS;
  protected readonly kinds = KINDS;
  protected readonly run = stepRun();

  /** As it is kept. */
  private readonly kept = computed(() => this.names.people()?.naming ?? null);
  /** As it is to be; what is kept until somebody changes it. */
  protected readonly naming = draftOf<Naming | null>(this.kept);
  protected readonly isChanged = computed(
    () => JSON.stringify(this.naming()) !== JSON.stringify(this.kept()) && this.naming() !== null,
  );
  protected readonly categories = computed(() => this.names.people()?.categories ?? []);
  protected readonly keepText = computed(() => this.naming()?.keep.join('\n') ?? '');
  private readonly here = computed(() => {
    const network = this.session.network();
    return network && this.names.of(network.id);
  });
  protected readonly missing = computed(() => this.here()?.missing ?? 0);
  protected readonly missingPhrase = computed(
    () =>
      `${counted(this.missing(), 'account')} came after pseudonyms were given, and ${this.missing() === 1 ? 'has' : 'have'} none yet.`,
  );
  /** Columns of the network that tell of people. */
  protected readonly telling = computed(() => this.here()?.telling ?? []);
  private readonly leftOut = computed(() => new Set(this.here()?.leftOut ?? []));
  /** Who can be known by what goes out, in a sentence; empty where nobody can. */
  protected readonly rare = computed(() => {
    const cells = this.here()?.smallCells;
    if (!cells || cells.combinations === 0) return '';
    const [share, whom] = cells.people === 1 ? ['shares', 'it'] : ['share', 'they'];
    return `${counted(cells.people, 'account')} ${share} ${joinWith(
      'and',
      cells.columns.map((name) => `“${name}”`),
    )} with fewer than ${cells.least - 1} others each: ${whom} can be known by that. Leave a column out, or put values together on Tidy.`;
  });
  /** What holds now, in a sentence. */
  protected readonly state = computed(() => {
    const people = this.names.people();
    const here = this.here();
    if (!people || people.known === 0 || !here || here.names.length === 0) return '';
    const own =
      here.kept === 0
        ? ''
        : `; here ${counted(here.kept, 'account')} ${here.kept === 1 ? 'keeps its name' : 'keep their names'}`;
    return `${counted(people.known, 'account')} of this study ${people.known === 1 ? 'has' : 'have'} a pseudonym${own}.`;
  });

  protected change(part: Partial<Naming>): void {
    const naming = this.naming();
    if (naming) this.naming.set({ ...naming, ...part });
  }

  protected setForm(form: NamingForm): void {
    const [first = ''] = this.categories();
    this.change({
      form,
      ...(form === 'category' && this.naming()?.category === '' ? { category: first } : {}),
    });
  }

  protected setKeep(text: string): void {
    this.change({
      keep: [...new Set(text.split(/[\n,;]/).map((one) => one.trim()))].filter((one) => one !== ''),
    });
  }

  protected toggleKind(kind: TidyKind, isKept: boolean): void {
    const naming = this.naming();
    if (!naming) return;
    const others = naming.keepKinds.filter((one) => one !== kind);
    this.change({ keepKinds: isKept ? [...others, kind] : others });
  }

  /** Whether a column goes out, by what was chosen just now or, where nothing was, as it is. */
  protected goesOut(name: string, { details, without }: Naming): boolean {
    return details.includes(name) || (!without.includes(name) && !this.leftOut().has(name));
  }

  protected toggleColumn(name: string, isOut: boolean): void {
    const naming = this.naming();
    if (!naming) return;
    const other = (one: string): boolean => one !== name;
    const [details, without] = [naming.details.filter(other), naming.without.filter(other)];
    this.change(isOut ? { details: [...details, name], without } : { details, without: [...without, name] });
  }

  protected use(): void {
    const naming = this.naming();
    if (!naming) return;
    this.run.start(this.study(), 'name-people', naming, ({ sentence }) => this.notices.say(sentence));
  }

  protected leave(): void {
    this.naming.set(this.kept());
  }

  protected forget(): void {
    this.run.start(this.study(), 'forget-pseudonyms', {}, ({ sentence }) => this.notices.say(sentence));
  }
}
