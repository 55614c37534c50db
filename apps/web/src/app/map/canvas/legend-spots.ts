import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import type { LegendCorner } from '@pebble/contract';
import type { LegendSpot } from '@pebble/core';
import { cornerAt, withGroupName, withHeading } from '../session/legend-words';
import { injectMapEditor } from '../session/inject-map-editor';

/** A pointer that moves less, in pixels, has pressed and not dragged. */
const STILL = 5;
/** So long a second press may come, in milliseconds. */
const SECOND_PRESS = 220;

/**
 * The lines of the legend on the map: headings and names of groups are written anew where they stand, communities are read, and the whole is
 * dragged to another corner.
 */
@Component({
  selector: 'pt-legend-spots',
  imports: [MatTooltip, MatInput, MatFormField, MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (spot of spots(); track $index) {
      @if (editing() === nameOf(spot)) {
        <span class="edit" [style.left.px]="spot.x" [style.top.px]="spot.y - 4">
          <mat-form-field><input matInput
            #field
            maxlength="100"
            [style.width.px]="spot.width"
            [attr.aria-label]="spot.part ? 'Heading' : 'Name of the group'"
            [value]="ownWords(spot)"
            [placeholder]="usualWords(spot)"
            (keydown.enter)="field.blur()"
            (keydown.escape)="leave($event)"
            (blur)="write(spot, field.value)" /></mat-form-field>
          <!-- Before the field is left, so that the panel opens with what was written. -->
          <button matButton="outlined" (mousedown)="$event.preventDefault()" (click)="field.blur(); settingsAsked.emit()">
            All settings
          </button>
        </span>
      } @else {
        <button
          class="spot"
          [class.moving]="target() !== null"
          [style.left.px]="spot.x"
          [style.top.px]="spot.y"
          [style.width.px]="spot.width"
          [style.height.px]="spot.height"
          [attr.aria-label]="label(spot)"
          [matTooltip]="title(spot)"
          (pointerdown)="press($event)"
          (pointermove)="move($event)"
          (pointerup)="release()"
          (pointercancel)="release()"
          (click)="use(spot)"
          (dblclick)="edit(spot)"
          (keydown.f2)="edit(spot)"
        ></button>
      }
    }
    @if (target(); as corner) {
      <span class="target" [class]="corner" role="status">The legend goes here</span>
    }
  `,
  styles: `
    .spot {
      position: absolute;
      border: 0;
      background: none;
      cursor: pointer;
      border-radius: 5px;
      touch-action: none;
    }
    .spot:hover {
      background: color-mix(in srgb, var(--thread) 10%, transparent);
    }
    .moving {
      cursor: grabbing;
    }
    .edit {
      position: absolute;
      z-index: 3;
      display: flex;
      gap: 6px;
    }
    .target {
      position: absolute;
      width: 190px;
      height: 150px;
      display: grid;
      place-items: center;
      border: 2px dashed var(--thread);
      border-radius: 8px;
      color: var(--thread);
      background: color-mix(in srgb, var(--paper) 80%, transparent);
      pointer-events: none;
    }
    .upper {
      top: 20px;
    }
    .lower {
      bottom: 20px;
    }
    .left {
      left: 14px;
    }
    .right {
      right: 14px;
    }
  `,
})
export class LegendSpots {
  readonly spots = input.required<readonly LegendSpot[]>();
  readonly settingsAsked = output();
  private readonly map = injectMapEditor();
  private readonly field = viewChild<ElementRef<HTMLInputElement>>('field');
  /** The line whose words are being written, by its name. */
  protected readonly editing = signal<string | null>(null);
  /** The corner that the legend would go to, while it is dragged. */
  protected readonly target = signal<LegendCorner | null>(null);
  private pressed: { x: number; y: number } | null = null;
  private wasDragged = false;
  private reading: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    afterRenderEffect(() => {
      const field = this.field()?.nativeElement;
      field?.focus();
      field?.select();
    });
  }

  /** What a line is called among the lines. */
  protected nameOf({ part, key }: LegendSpot): string {
    return part === null ? `group ${key}` : `part ${part}`;
  }

  protected label({ part, group, label }: LegendSpot): string {
    if (part !== null) return `Legend, ${label}`;
    return group === null ? `Group ${label}` : `Community ${label}`;
  }

  protected title({ part, group, label }: LegendSpot): string {
    const words =
      part === null
        ? group === null
          ? 'Write another name'
          : `Read community ${label}`
        : 'Write another heading';
    return group === null
      ? `${words}; drag to another corner`
      : `${words}; press twice or F2 to write another name`;
  }

  protected use(spot: LegendSpot): void {
    if (this.wasDragged) {
      this.wasDragged = false;
      return;
    }
    clearTimeout(this.reading);
    if (spot.group === null) this.edit(spot);
    else this.reading = setTimeout(() => this.read(spot.group!), SECOND_PRESS);
  }

  /** Reading moves what stands beside the map, so it waits for a second press. */
  private read(community: number): void {
    this.map.session.selectCommunity(community);
  }

  protected edit(spot: LegendSpot): void {
    clearTimeout(this.reading);
    this.editing.set(this.nameOf(spot));
  }

  /** Words of one's own that a line has now. */
  protected ownWords({ part, key }: LegendSpot): string {
    const { headings, names } = this.map.description().legend;
    return (part === null ? names[key ?? ''] : headings[part]) ?? '';
  }

  /** What stands there now, where the field is empty. */
  protected usualWords(spot: LegendSpot): string {
    return this.ownWords(spot) ? 'as usual' : spot.label.replace(/, [\d,]+ nodes$/, '');
  }

  protected write(spot: LegendSpot, text: string): void {
    if (this.editing() !== this.nameOf(spot)) return;
    this.editing.set(null);
    const words = text.trim();
    if (words === this.ownWords(spot)) return;
    const { legend } = this.map.description();
    const { part, key } = spot;
    this.map.set(
      'legend',
      part === null ? withGroupName(legend, key!, words) : withHeading(legend, part, words),
    );
  }

  /** Leaves everything as it was. */
  protected leave(event: Event): void {
    event.stopPropagation();
    this.editing.set(null);
  }

  protected press(event: PointerEvent): void {
    if (event.button !== 0) return;
    this.pressed = { x: event.clientX, y: event.clientY };
    this.wasDragged = false;
    (event.target as Element).setPointerCapture?.(event.pointerId);
  }

  protected move({ clientX: x, clientY: y, target }: PointerEvent): void {
    const { pressed } = this;
    if (!pressed || (!this.wasDragged && Math.hypot(x - pressed.x, y - pressed.y) <= STILL)) return;
    this.wasDragged = true;
    const box = (target as Element).closest('pt-map-canvas')!.getBoundingClientRect();
    this.target.set(cornerAt(x - box.left, y - box.top, box));
  }

  protected release(): void {
    const corner = this.target();
    this.pressed = null;
    this.target.set(null);
    if (corner && corner !== this.map.description().legend.corner) this.map.set('legend', { corner });
  }
}
