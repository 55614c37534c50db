import { inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';

/** Opens the search for anything; its program comes when it is asked for. */
@Injectable({ providedIn: 'root' })
export class SearchDialog {
  private readonly dialogs = inject(MatDialog);

  async open(): Promise<void> {
    if (this.dialogs.openDialogs.length > 0) return;
    const { Search } = await import('./search');
    this.dialogs.open(Search, {
      width: '640px',
      maxWidth: 'calc(100vw - 24px)',
      position: { top: '12vh' },
      ariaLabel: 'Search for anything',
      // What is typed at once must come into the field.
      enterAnimationDuration: 0,
      exitAnimationDuration: 0,
    });
  }
}
