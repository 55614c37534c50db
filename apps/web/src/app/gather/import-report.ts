import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { addressOf, ROUTES, type ImportReport } from '@pebble/contract';
import { formatCount } from '@pebble/core/first';
import { day } from '../shared/words';

/** What came of an import. */
@Component({
  selector: 'pt-import-report',
  imports: [MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let r = report();
    <dl>
      <div>
        <dt>{{ r.unit === 'row' ? 'rows' : r.unit === 'email' ? 'emails' : 'activities' }} read</dt>
        <dd>{{ n(r.read) }}</dd>
      </div>
      @for (fact of facts(); track fact.name) {
        <div [matTooltip]="fact.how">
          <dt>{{ fact.name }}</dt>
          <dd class="main">{{ n(fact.count) }}</dd>
        </div>
      }
      <div [class.zero]="!r.skipped">
        <dt>skipped</dt>
        <dd>{{ n(r.skipped) }}</dd>
      </div>
      <div [class.zero]="!r.duplicates" matTooltip="Same message id as a message that is there already">
        <dt>duplicates left out</dt>
        <dd>{{ n(r.duplicates) }}</dd>
      </div>
      @if (r.kept) {
      <div>
        <dt>authors</dt>
        <dd>{{ n(r.authors) }}</dd>
      </div>
      <div>
        <dt>mentions</dt>
        <dd>{{ n(r.mentions) }}</dd>
      </div>
      <div>
        <dt>hashtags</dt>
        <dd>{{ n(r.hashtags) }}</dd>
      </div>
      <div>
        <dt>links</dt>
        <dd>{{ n(r.links) }}</dd>
      </div>
      }
    </dl>
    <p class="soft">
      @if (r.from !== null && r.until !== null) {
        {{ day(r.from) }} to {{ day(r.until) }} (UTC).
      }
      {{ n(r.accountsNew) }} accounts are new, {{ n(r.accountsKnown) }} were known. {{ r.notes.join(' ') }}
      {{ languages() }}
    </p>
    @if (r.skipped) {
      <ul>
        @for (reason of r.skippedByReason; track reason.reason) {
          <li>{{ n(reason.rows) }} × {{ reason.reason }}</li>
        }
      </ul>
      <a [href]="skippedAddress()" download>Download the list of skipped rows</a> ·
    }
    <a [href]="reportAddress()" download>Download this report</a>
  `,
  styles: `
    dl {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 26px;
      margin: 6px 0;
    }
    dt {
      font-size: 12.5px;
      color: var(--soft);
    }
    dd {
      margin: 0;
      font: 600 20px/1.2 var(--serif);
      font-variant-numeric: lining-nums tabular-nums;
    }
    .main {
      color: var(--thread);
    }
    .zero {
      color: var(--soft);
    }
    ul {
      margin: 6px 0;
      padding-left: 18px;
      color: var(--danger);
    }
  `,
})
export class ImportReportView {
  readonly report = input.required<ImportReport>();
  readonly study = input.required<string>();
  readonly step = input.required<number>();
  /** The sentence about the languages that were found, once they are. */
  readonly languages = input('');
  /** What came, as far as it came. */
  protected readonly facts = computed(() => {
    const { kept, items, follows, profiles } = this.report();
    const all = [
      { name: 'messages kept', count: kept, how: '' },
      { name: 'items', count: items, how: 'Videos, pages and the like that were not there before' },
      {
        name: 'ties of following',
        count: follows,
        how: 'Who follows whom, as far as it was not known before',
      },
      {
        name: 'accounts with details',
        count: profiles,
        how: 'Accounts of which something beside the name is told',
      },
    ];
    const some = all.filter(({ count }) => count > 0);
    return some.length > 0 ? some : all.slice(0, 1);
  });
  protected readonly skippedAddress = computed(() => addressOf(ROUTES.skippedRows, this.place()));
  protected readonly reportAddress = computed(() => addressOf(ROUTES.importReport, this.place()));
  private readonly place = computed(() => ({ study: this.study(), step: this.step() }));
  protected readonly day = day;
  protected readonly n = formatCount;
}
