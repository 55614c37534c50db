import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import type { CollectRun, KnownService, ServiceAccess, ServiceKind } from '@pebble/contract';
import { catchError, debounceTime, map, of, switchMap, tap } from 'rxjs';
import { Api } from '../api/api';
import { DayRangeField } from '../shared/days/day-range';
import { counted } from '../shared/words';
import { EMPTY_FORM, planOf, runName, WHATS, type PlanForm } from './plan-form';
import { Busy } from '../shared/busy';
import { CountPipe } from '../shared/count-pipe';
import { draftOf } from '../shared/draft';

const OTHER = 'other';

/** Say what to collect from which service; what it costs is told before it begins. */
@Component({
  selector: 'pt-collect-panel',
  imports: [
    CountPipe,
    MatTooltip,
    MatInput,
    MatFormField,
    MatCheckbox,
    MatButton,
    Busy,
    DayRangeField,
    FormsModule,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './collect-panel.html',
  styleUrl: './collect-panel.scss',
})
export class CollectPanel {
  readonly study = input.required<string>();
  readonly begun = output<CollectRun>();
  readonly closed = output<void>();
  private readonly api = inject(Api);
  protected readonly counted = counted;
  protected readonly whats = WHATS;
  protected readonly other = OTHER;

  protected readonly services = toSignal(
    this.api.services().pipe(catchError(() => of([] as KnownService[]))),
    { initialValue: [] },
  );
  protected readonly address = draftOf(() => this.services()[0]?.address ?? OTHER);
  protected readonly ownKind = signal<ServiceKind>('hub');
  protected readonly ownAddress = signal('');
  protected readonly clientId = signal('');
  protected readonly secret = signal('');
  private readonly typed = signal<PlanForm>(EMPTY_FORM);
  protected readonly name = signal('');
  protected readonly busy = signal(false);
  protected readonly error = signal<string | null>(null);

  protected readonly known = computed(
    () => this.services().find(({ address }) => address === this.address()) ?? null,
  );
  protected readonly kind = computed(() => this.known()?.kind ?? this.ownKind());
  /** What is typed; of what another kind of service offers, the first that this one does. */
  protected readonly form = computed<PlanForm>(() => {
    const form = this.typed();
    const offered = WHATS[this.kind()];
    return offered.some(({ what }) => what === form.what) ? form : { ...form, what: offered[0].what };
  });
  protected readonly access = computed<ServiceAccess | null>(() => {
    const known = this.known();
    if (known) {
      const { kind, name, address } = known;
      return { service: { kind, name, address }, clientId: known.clientId, secret: '' };
    }
    const address = this.ownAddress().trim();
    if (!/^https?:\/\/\S+$/.test(address) || this.secret() === '') return null;
    const service = { kind: this.kind(), name: new URL(address).host, address };
    return { service, clientId: this.clientId(), secret: this.secret() };
  });
  protected readonly plan = computed(() => planOf(this.form()));
  protected readonly lacks = computed(() => {
    const plan = this.plan();
    if (this.access() === null) return 'Give the address of the service, its client id and secret.';
    return 'lacks' in plan ? plan.lacks : null;
  });

  /** What the service says of itself; the mailboxes of a mail service. */
  protected readonly description = toSignal(
    toObservable(this.access).pipe(
      debounceTime(300),
      switchMap((access) =>
        access
          ? this.api.describeService(access).pipe(
              tap(() => this.error.set(null)),
              catchError((error: Error) => {
                this.error.set(error.message);
                return of(null);
              }),
            )
          : of(null),
      ),
    ),
    { initialValue: null },
  );
  private readonly ready = computed(() => {
    const plan = this.plan();
    const access = this.access();
    return access && this.description() && !('lacks' in plan) ? { access, plan } : null;
  });
  protected readonly estimate = toSignal(
    toObservable(this.ready).pipe(
      debounceTime(400),
      switchMap((ready) =>
        ready
          ? this.api.estimatePlan({ access: ready.access, plan: ready.plan }).pipe(
              map((estimate) => ({ estimate, problem: null })),
              catchError((error: Error) => of({ estimate: null, problem: error.message })),
            )
          : of(null),
      ),
    ),
    { initialValue: null },
  );

  protected set(part: Partial<PlanForm>): void {
    this.typed.update((form) => ({ ...form, ...part }));
  }

  protected toggleMailbox(id: string, isWanted: boolean): void {
    const { mailboxes } = this.form();
    this.set({ mailboxes: isWanted ? [...mailboxes, id] : mailboxes.filter((one) => one !== id) });
  }

  /** "10 requests at most, 20 seconds of waiting for the budget" */
  protected cost({ requests, waitSeconds }: { requests: number; waitSeconds: number }): string {
    const waiting =
      waitSeconds === 0
        ? 'no waiting for the budget'
        : waitSeconds < 120
          ? `about ${Math.round(waitSeconds)} seconds of waiting for the budget`
          : `about ${Math.round(waitSeconds / 60)} minutes of waiting for the budget`;
    return `${counted(requests, 'request')} at most, ${waiting}.`;
  }

  protected begin(): void {
    const access = this.access();
    const plan = this.plan();
    if (!access || 'lacks' in plan) return;
    this.busy.set(true);
    const name = this.name().trim() || runName(plan);
    this.api.beginRun({ study: this.study() }, { name, access, plan }).subscribe({
      next: (run) => {
        this.busy.set(false);
        this.begun.emit(run);
      },
      error: (error: Error) => {
        this.busy.set(false);
        this.error.set(error.message);
      },
    });
  }
}
