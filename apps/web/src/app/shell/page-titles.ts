import { effect, inject, Injectable, signal } from '@angular/core';
import { Title } from '@angular/platform-browser';
import { TitleStrategy, type RouterStateSnapshot } from '@angular/router';
import { Store } from '@ngrx/store';
import { work } from '../store/work.reducer';

/** The title of a page says where in which study one is: windows and entries of the history are told apart by it. */
@Injectable()
export class PageTitles extends TitleStrategy {
  private readonly title = inject(Title);
  private readonly study = inject(Store).selectSignal(work.selectStudy);
  private readonly view = signal('');

  constructor() {
    super();
    effect(() => {
      const view = this.view();
      const study = view === 'Studies' ? undefined : this.study()?.name;
      this.title.setTitle([view, study, 'Pebble Thread'].filter((part) => part).join(' · '));
    });
  }

  override updateTitle(snapshot: RouterStateSnapshot): void {
    this.view.set(this.buildTitle(snapshot) ?? '');
  }
}
