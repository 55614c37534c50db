import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatDialogActions, MatDialogContent, MatDialogRef, MatDialogTitle } from '@angular/material/dialog';
import { MatProgressBar } from '@angular/material/progress-bar';
import type { Network, PackageQuery } from '@pebble/contract';
import { Api, pathOf } from '../../api/api';
import { Plates } from '../../map/plates/plates';
import { MapSession } from '../../map/session/map-session';
import { Busy } from '../../shared/busy';
import { LeakGuard } from '../../shared/leaks/leak-guard';
import { saving } from '../../shared/saving';
import { SavingNote } from '../../shared/saving-note';
import { counted } from '../../shared/words';
import { Notices } from '../../store/notices';
import { checking } from '../credits/checking';
import { CreditFields } from '../credits/credit-fields';
import { Credits } from '../credits/credits';

/** Chooses what a package of the open network holds, says what is in it and what is not, and saves it. */
@Component({
  selector: 'pt-package-maker',
  imports: [
    Busy,
    CreditFields,
    FormsModule,
    MatButton,
    MatCheckbox,
    MatDialogActions,
    MatDialogContent,
    MatDialogTitle,
    MatProgressBar,
    SavingNote,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './package-maker.html',
  styleUrls: ['../fields.scss', './package-maker.scss'],
})
export class PackageMaker {
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  private readonly guard = inject(LeakGuard);
  private readonly credits = inject(Credits);
  private readonly all = inject(Plates).all;
  protected readonly dialog = inject<MatDialogRef<PackageMaker>>(MatDialogRef);
  protected readonly network = inject(MapSession).network() as Network;
  protected readonly saving = saving();
  protected readonly title = signal('');
  protected readonly withPage = signal(true);
  protected readonly withPlates = signal(true);
  protected readonly plates = computed(
    () => (this.all() ?? []).filter(({ network }) => network === this.network.id).length,
  );
  protected readonly counted = counted;

  private readonly query = computed<PackageQuery>(() => ({
    title: this.title().trim(),
    author: this.credits.author().trim(),
    licence: this.credits.licence().trim(),
    page: this.withPage() ? 'true' : 'false',
    plates: this.withPlates() ? 'true' : 'false',
  }));
  protected readonly check = checking(this.query, (query) =>
    this.api.packageCheck(pathOf(this.network), query),
  );

  protected async save(): Promise<void> {
    const check = this.check.found();
    const query = this.query();
    if (!check) return;
    const allowed = await this.guard.found(check.leaks);
    if (allowed === 'no') return;
    const { study, id: network } = this.network;
    const parameters = { ...query, network, files: check.files.length, allowed };
    const name = `${query.title || this.network.name}.package.zip`;
    const bytes = this.api.package(pathOf(this.network), query);
    const out = { study, kind: 'export-package', parameters, name, type: 'application/zip' } as const;
    this.saving.start(bytes, out, () => {
      this.notices.say('The package was saved. It opens here on the page of studies, or on Weave.');
      this.dialog.close();
    });
  }
}
