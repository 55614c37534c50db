import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { inMillimetres, inPixels } from './figure-sizes';

/** In pixels, and pixels to the inch. */
export interface Size {
  readonly width: number;
  /** Null for as high as the map is. */
  readonly height: number | null;
  readonly resolution: number;
}

/** How large a figure is, in pixels or millimetres. */
@Component({
  selector: 'pt-own-size',
  imports: [FormsModule, MatFormField, MatInput],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (side of sides; track side.side) {
      <label
        >{{ side.words }}, {{ unit() }}
        <mat-form-field
          ><input
            matInput
            type="number"
            min="1"
            step="any"
            placeholder="as it is"
            [ngModel]="shown(size()[side.side])"
            (ngModelChange)="write(side.side, $event)"
        /></mat-form-field>
      </label>
    }
    <label
      >In
      <mat-form-field
        ><select matNativeControl aria-label="Unit" [ngModel]="unit()" (ngModelChange)="unit.set($event)">
          <option value="pixels">pixels</option>
          <option value="mm">millimetres</option>
        </select></mat-form-field
      >
    </label>
    <label
      >Dots per inch
      <mat-form-field
        ><input
          matInput
          type="number"
          min="72"
          max="1200"
          [ngModel]="size().resolution"
          (ngModelChange)="setResolution(+$event || 300)"
      /></mat-form-field>
    </label>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 10px 12px;
      margin: 10px 0;
    }
    label {
      color: var(--soft);
      font-size: 13px;
    }
    mat-form-field {
      width: 100%;
      margin-top: 4px;
    }
  `,
})
export class OwnSize {
  readonly size = input.required<Size>();
  readonly changed = output<Partial<Size>>();
  protected readonly sides = [
    { side: 'width', words: 'Width' },
    { side: 'height', words: 'Height' },
  ] as const;
  protected readonly unit = signal<'pixels' | 'mm'>('pixels');

  protected shown(pixels: number | null): number | null {
    if (pixels === null || this.unit() === 'pixels') return pixels;
    return inMillimetres(pixels, this.size().resolution);
  }

  protected write(side: 'width' | 'height', value: number | null): void {
    if (value === null || !(value > 0)) {
      if (side === 'height') this.changed.emit({ height: null });
      return;
    }
    const { resolution } = this.size();
    this.changed.emit({ [side]: this.unit() === 'pixels' ? value : inPixels(value, resolution) });
  }

  /** Where lengths are given in millimetres they stay, and there are other pixels. */
  protected setResolution(resolution: number): void {
    const { width, height, resolution: before } = this.size();
    if (this.unit() === 'pixels') return this.changed.emit({ resolution });
    const again = (pixels: number): number => Math.round((pixels * resolution) / before);
    this.changed.emit({
      resolution,
      width: again(width),
      ...(height === null ? {} : { height: again(height) }),
    });
  }
}
