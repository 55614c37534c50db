import { Injectable, signal } from '@angular/core';

/** Who publishes, and under which licence: written once for all that goes out while the application is open. */
@Injectable({ providedIn: 'root' })
export class Credits {
  readonly author = signal('');
  readonly licence = signal('');
}
