import { A11yModule } from '@angular/cdk/a11y';
import { ChangeDetectionStrategy, Component, ElementRef, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import type { CaptionControl } from '@pebble/core';
import { MapSession } from '../session/map-session';
import { ArrangementSettings } from '../settings/arrangement-settings';
import { ColourSettings } from '../settings/colour-settings';
import { NameSettings } from '../settings/name-settings';
import { OutlineSettings } from '../settings/outline-settings';
import { ShownSettings } from '../settings/shown-settings';
import { SizeSettings } from '../settings/size-settings';
import { TieSettings } from '../settings/tie-settings';

/** The caption over the map: each phrase opens the settings that it speaks of. */
@Component({
  selector: 'pt-caption-bar',
  imports: [
    A11yModule,
    MatButton,
    ArrangementSettings,
    ColourSettings,
    NameSettings,
    OutlineSettings,
    RouterLink,
    ShownSettings,
    SizeSettings,
    TieSettings,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './caption-bar.html',
  styleUrl: './caption-bar.scss',
  host: { '(keydown.escape)': 'close()' },
})
export class CaptionBar {
  readonly study = input.required<string>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly session = inject(MapSession);
  protected readonly phrases = this.session.caption;
  protected readonly open = signal<{ control: CaptionControl; left: number; top: number } | null>(null);

  /** A phrase that begins with a mark stays on the line of the button before it. */
  protected joined(text: string): string {
    return /^[.,]/.test(text) ? `\u2060${text}` : text;
  }

  protected show(control: CaptionControl, event: Event): void {
    const button = event.currentTarget as HTMLElement;
    const host = this.host.nativeElement.getBoundingClientRect();
    const place = button.getBoundingClientRect();
    const left = Math.max(8, Math.min(place.left - host.left, host.width - 346));
    this.open.set(
      this.open()?.control === control && this.open()?.left === left
        ? null
        : { control, left, top: place.bottom - host.top + 4 },
    );
  }

  /**
   * What was typed last is taken over when its field is left, by the same press, and can make the settings grow: the button would be gone
   * from under the pointer before it is let go.
   */
  protected closeByPress({ button, view }: MouseEvent): void {
    if (button !== 0) return;
    (view?.document.activeElement as HTMLElement | null)?.blur();
    this.close();
  }

  protected close(): void {
    this.open.set(null);
  }
}
