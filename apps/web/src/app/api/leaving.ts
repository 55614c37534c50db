import { DestroyRef, DOCUMENT, inject, Injectable } from '@angular/core';

/** Does things at once when the page may be left: hidden, closed, or loaded anew. */
@Injectable({ providedIn: 'root' })
export class Leaving {
  private readonly view = inject(DOCUMENT).defaultView;
  /** Whether that is being done: what is sent now has to arrive though its page may be gone. */
  isNow = false;

  /**
   * Until its owner ends; called where a store or component is made.
   * @param keep keeps what is not kept yet; whether all of it will be kept, else the reader is asked to stay for a moment
   */
  do(keep: () => boolean): void {
    const { view } = this;
    if (!view) return;
    const keepNow = (): boolean => {
      this.isNow = true;
      try {
        return keep();
      } finally {
        this.isNow = false;
      }
    };
    const left = (): void => void keepNow();
    const hidden = (): void => {
      if (view.document.visibilityState === 'hidden') keepNow();
    };
    const closing = (event: Event): void => {
      if (!keepNow()) event.preventDefault();
    };
    view.document.addEventListener('visibilitychange', hidden);
    view.addEventListener('pagehide', left);
    view.addEventListener('beforeunload', closing);
    inject(DestroyRef).onDestroy(() => {
      view.document.removeEventListener('visibilitychange', hidden);
      view.removeEventListener('pagehide', left);
      view.removeEventListener('beforeunload', closing);
    });
  }
}
