import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { Growth, type MapDescription } from '@pebble/contract';
import { formatValue, type CaptionControl } from '@pebble/core';
import { Store } from '@ngrx/store';
import { MapActions } from '../store/map.actions';
import { MapSession } from './map-session';

/** The caption over the map: each phrase opens the settings that it speaks of. */
@Component({
  selector: 'pt-caption-bar',
  imports: [FormsModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './caption-bar.html',
  styleUrl: './caption-bar.scss',
  host: { '(keydown.escape)': 'close()' },
})
export class CaptionBar {
  readonly study = input.required<string>();
  private readonly store = inject(Store);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly session = inject(MapSession);
  protected readonly phrases = this.session.caption;
  protected readonly description = this.session.description;
  protected readonly open = signal<{ control: CaptionControl; left: number; top: number } | null>(null);
  protected readonly growths = Growth.options;
  protected readonly columns = computed(() => this.session.network()?.columns ?? []);
  protected readonly numberColumns = computed(() => this.columns().filter(({ type }) => type === 'number'));
  protected readonly communities = computed(() => this.session.network()?.measures['communities'] ?? 0);
  protected readonly sizeRange = computed(() =>
    (this.session.prepared()?.sizeRange ?? [0, 0]).map(formatValue).join(' … '),
  );
  protected readonly groups = computed(
    () => this.session.prepared()?.groups.filter(({ value, name }) => value > 0 && name === undefined) ?? [],
  );

  /** A phrase that begins with a mark stays on the line of the button before it. */
  protected joined(text: string): string {
    return /^[.,]/.test(text) ? `\u2060${text}` : text;
  }

  protected how(column: string): string {
    return this.columns().find(({ name }) => name === column)?.how ?? '';
  }

  protected show(control: CaptionControl, event: Event): void {
    const button = event.currentTarget as HTMLElement;
    const host = this.host.nativeElement.getBoundingClientRect();
    const place = button.getBoundingClientRect();
    const left = Math.max(8, Math.min(place.left - host.left, host.width - 320));
    this.open.set(
      this.open()?.control === control && this.open()?.left === left
        ? null
        : { control, left, top: place.bottom - host.top + 4 },
    );
  }

  protected clamp(value: number, least: number, most: number): number {
    return Math.min(most, Math.max(least, Math.round(value) || least));
  }

  protected close(): void {
    this.open.set(null);
  }

  protected set<K extends 'size' | 'colour' | 'names' | 'ties' | 'show'>(
    part: K,
    change: Partial<MapDescription[K]>,
  ): void {
    const before = this.description();
    this.store.dispatch(
      MapActions.descriptionChanged({ description: { ...before, [part]: { ...before[part], ...change } } }),
    );
  }

  protected setRadius(which: 'smallest' | 'largest', value: number): void {
    if (!(value >= 0.5 && value <= 60)) return;
    const { smallest, largest } = this.description().size;
    this.set(
      'size',
      which === 'smallest'
        ? { smallest: Math.min(value, largest) }
        : { largest: Math.max(value, smallest, 1) },
    );
  }

  protected toggleCommunity(value: number, on: boolean): void {
    const all = this.groups().map((group) => group.value);
    const chosen = new Set(this.description().show.communities ?? all);
    if (on) chosen.add(value);
    else chosen.delete(value);
    this.set('show', { communities: [...chosen].sort((a, b) => a - b) });
  }

  protected isShown(value: number): boolean {
    return this.description().show.communities?.includes(value) ?? true;
  }

  protected only(value: number): void {
    this.set('show', { communities: [value] });
  }

  protected arrange(seed: number, gravity: number, repulsion: number): void {
    this.session.arrange({ ...this.session.settings(), seed, gravity, repulsion });
    this.close();
  }
}
