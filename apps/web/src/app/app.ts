import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { SearchDialog } from './search/search-dialog';
import { ThemeChoice } from './shared/theme';
import { focusOnArrival } from './shell/focus-on-arrival';

@Component({
  selector: 'pt-root',
  imports: [RouterOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<router-outlet />',
  host: { '(document:keydown)': 'key($event)' },
})
export class App {
  private readonly search = inject(SearchDialog);

  constructor() {
    inject(ThemeChoice);
    focusOnArrival();
  }

  /** Ctrl K, or Cmd K: the search for anything. */
  protected key(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'k') return;
    event.preventDefault();
    void this.search.open();
  }
}
