import { inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import type { Leaks, StepParameters } from '@pebble/contract';
import { firstValueFrom, type Observable } from 'rxjs';
import { Api, pathOf, type NetworkPlace } from '../../api/api';

/** Why something may go out in which people can be found; null where nobody can. */
export type Allowed = StepParameters<'export-figure'>['allowed'];

/** A text that is to go out, and where it stands. */
export interface PlacedText {
  readonly place: string;
  readonly text: string;
}

/** Reads what is to go out as a stranger would, and asks where people who have pseudonyms can be found all the same. */
@Injectable({ providedIn: 'root' })
export class LeakGuard {
  private readonly api = inject(Api);
  private readonly dialogs = inject(MatDialog);

  /** Whether texts may go out, and why; 'no' where somebody decided that they may not. */
  texts(study: string, texts: readonly PlacedText[]): Promise<Allowed | 'no'> {
    return this.ask(() => this.api.leaks({ study }, { texts: texts.filter(({ text }) => text !== '') }));
  }

  /** The same of the tables of a network. */
  network(network: NetworkPlace): Promise<Allowed | 'no'> {
    return this.ask(() => this.api.networkLeaks(pathOf(network)));
  }

  /** The same of what was found already. */
  async found(leaks: Leaks): Promise<Allowed | 'no'> {
    if (leaks.total === 0) return null;
    const { LeaksDialog } = await import('./leaks-dialog');
    const dialog = this.dialogs.open(LeaksDialog, {
      data: leaks,
      width: '640px',
      maxWidth: 'calc(100vw - 24px)',
      ariaLabel: 'People can be found in it',
    });
    const reason = (await firstValueFrom(dialog.afterClosed())) as string | undefined;
    return reason ? { reason, found: leaks.total } : 'no';
  }

  private async ask(read: () => Observable<Leaks>): Promise<Allowed | 'no'> {
    return this.found(await firstValueFrom(read()));
  }
}
