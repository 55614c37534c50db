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
import { FormsModule } from '@angular/forms';
import { DomSanitizer } from '@angular/platform-browser';
import { Router, RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatMenu, MatMenuItem, MatMenuTrigger } from '@angular/material/menu';
import { MatTooltip } from '@angular/material/tooltip';
import { MatInput } from '@angular/material/input';
import { addressOf, ROUTES, type FigureFormat, type NetworkExport } from '@pebble/contract';
import { Store } from '@ngrx/store';
import { Api, pathOf } from '../api/api';
import { MapSession } from '../map/session/map-session';
import { wholesIn } from '../shared/slices';
import { Notices } from '../store/notices';
import { work } from '../store/work.reducer';
import { WorkActions } from '../store/work.actions';
import { FigureDraft, SIZES } from './figure-draft';
import { FigureFindings } from './figure-findings';
import { PURPOSES } from './figure-sizes';
import { MethodsText } from './methods-text';
import { OwnSize } from './own-size';
import { PageFields } from './page-fields';
import { LeakGuard, type Allowed } from '../shared/leaks/leak-guard';
import { PeopleFields } from './people/people-fields';
import { PublishedNames } from './people/published-names';
import { PlateParts } from './plate-parts';
import { ToldFields } from './told-fields';
import { NoNetwork } from '../shell/no-network';
import { saveFile, saveFrom } from '../shared/save-file';
import { Busy } from '../shared/busy';
import { NetworkChoice } from '../shared/network-choice';

/** Further formats of a network, for what each is. */
const FORMATS: readonly { readonly format: NetworkExport; readonly words: string }[] = [
  { format: 'xlsx', words: 'Workbook (XLSX), nodes and ties' },
  { format: 'gml', words: 'GML' },
  { format: 'json-graph', words: 'JSON Graph' },
  { format: 'node-link', words: 'Node-link JSON' },
  { format: 'dot', words: 'DOT' },
  { format: 'arrow-nodes', words: 'Nodes, Arrow' },
  { format: 'arrow-ties', words: 'Ties, Arrow' },
  { format: 'parquet-nodes', words: 'Nodes, Parquet' },
  { format: 'parquet-ties', words: 'Ties, Parquet' },
];

/** Dialogs in which is chosen what goes out. */
const WIDE = { width: '620px', maxWidth: 'calc(100vw - 24px)' } as const;

/** The map as a figure with legend and caption, and the network as data. */
@Component({
  selector: 'pt-publish',
  imports: [
    MatTooltip,
    MatInput,
    MatFormField,
    MatCheckbox,
    MatButton,
    MatMenu,
    MatMenuItem,
    MatMenuTrigger,
    Busy,
    FigureFindings,
    FormsModule,
    MethodsText,
    NetworkChoice,
    NoNetwork,
    OwnSize,
    PageFields,
    PeopleFields,
    RouterLink,
    ToldFields,
  ],
  providers: [FigureDraft, PlateParts, PublishedNames],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './publish.html',
  styleUrl: './publish.scss',
})
export class Publish {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly dialogs = inject(MatDialog);
  private readonly guard = inject(LeakGuard);
  protected readonly names = inject(PublishedNames);
  private readonly notices = inject(Notices);
  private readonly sanitizer = inject(DomSanitizer);
  protected readonly session = inject(MapSession);
  protected readonly draft = inject(FigureDraft);
  protected readonly parts = inject(PlateParts);
  protected readonly study = this.store.selectSignal(work.selectStudy);
  protected readonly networks = this.store.selectSignal(work.selectNetworks);
  /** From the address; without it the network that is open, or the newest. */
  readonly network = input<string>();
  private readonly router = inject(Router);
  protected readonly purposes = PURPOSES;
  protected readonly sizes = SIZES;
  protected readonly formats = FORMATS;
  protected readonly busy = signal(false);
  private readonly address = signal<string | null>(null);
  protected readonly preview = computed(() => {
    const address = this.address();
    // The address is a blob that this page made itself.
    return address ? this.sanitizer.bypassSecurityTrustUrl(address) : null;
  });

  constructor() {
    effect(() => {
      const problem = this.draft.problem();
      if (problem) untracked(() => this.fail(problem));
    });
    effect(() => {
      const [first] = wholesIn(this.networks());
      const open = untracked(this.session.network)?.id;
      const wanted = this.network() ?? open ?? first?.id;
      // The address says which network it is, so that it is the same after a reload.
      if (wanted === undefined) return;
      if (this.network() === undefined) untracked(() => this.choose(wanted, true));
      else if (open !== wanted) untracked(() => void this.session.open(wanted));
    });
    effect((onCleanup) => {
      const svg = this.draft.svg();
      if (!svg) return void this.address.set(null);
      const address = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
      this.address.set(address);
      onCleanup(() => URL.revokeObjectURL(address));
    });
  }

  /** Shows another network; its address takes the place of this one where this one named none. */
  protected choose(network: string, replaceUrl = false): void {
    const study = this.study();
    if (study) void this.router.navigate(['/studies', study.id, 'publish', network], { replaceUrl });
  }

  protected async figure(format: FigureFormat): Promise<void> {
    const network = this.session.network();
    if (!network) return;
    this.busy.set(true);
    try {
      await this.draft.whenMade();
      const allowed = await this.guard.texts(network.study, this.draft.writtenOn());
      if (allowed === 'no') return;
      const [file, size] = [await this.draft.fileOf(format), this.draft.size()];
      if (!file || !size) throw new Error('The figure changed while it was being saved; save it once more.');
      saveFile(file, `${this.draft.name}.${format}`);
      this.api
        .step(network.study, 'export-figure', {
          network: network.id,
          format,
          ...size,
          resolution: this.draft.resolution(),
          caption: this.draft.captionLine(),
          plates: this.draft.isPage() ? [...this.parts.ids()] : [],
          allowed,
        })
        .subscribe({ error: (error: Error) => this.fail(error) });
      this.notices.say(`The figure was saved as ${format.toUpperCase()}; the logbook has the step.`);
    } catch (error) {
      this.fail(error as Error);
    } finally {
      this.busy.set(false);
    }
  }

  /** Chooses what a page of the map holds. */
  protected async page(): Promise<void> {
    const { PageToShare } = await import('./page-to-share');
    this.dialogs.open(PageToShare, { ...WIDE, ariaLabel: 'A page to share' });
  }

  /** Chooses what a report holds. */
  protected async report(): Promise<void> {
    const { ReportMaker } = await import('./report/report-maker');
    this.dialogs.open(ReportMaker, { ...WIDE, ariaLabel: 'A report' });
  }

  /** Chooses what a package holds. */
  protected async pack(): Promise<void> {
    const { PackageMaker } = await import('./package/package-maker');
    this.dialogs.open(PackageMaker, { ...WIDE, ariaLabel: 'A package' });
  }

  protected async data(format: NetworkExport): Promise<void> {
    const network = this.session.network();
    if (!network) return;
    let allowed: Allowed | 'no';
    try {
      allowed = await this.guard.network(network);
    } catch (error) {
      return this.fail(error as Error);
    }
    if (allowed === 'no') return;
    this.api.step(network.study, 'export-network', { network: network.id, format, allowed }).subscribe({
      next: () => {
        saveFrom(addressOf(ROUTES.exportNetwork, { ...pathOf(network), networkFormat: format }));
      },
      error: (error: Error) => this.fail(error),
    });
  }

  private fail(error: Error): void {
    this.store.dispatch(WorkActions.failed({ message: error.message }));
  }
}
