import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  input,
  linkedSignal,
  output,
  viewChild,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { TidyKind, type FoundThing, type Verdict } from '@pebble/contract';
import { fold } from '@pebble/core/first';
import { counted } from '../shared/words';
import { ThingExample } from './thing-example';

const OFFERED = 8;

/** One thing: an example of it, and what can be decided. */
@Component({
  selector: 'pt-thing-pane',
  imports: [MatInput, MatFormField, MatButton, ThingExample],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let t = thing();
    <h2>{{ t.label }}</h2>
    <p class="soft">
      {{ counted(t.messages, 'message') }} by {{ counted(t.authors, 'account') }}
      @if (t.state === 'merged') {
        · counted as {{ t.into?.label }}
      }
    </p>
    <pt-thing-example [study]="study()" [thing]="t" />
    <div class="acts">
      <button matButton="outlined" (click)="decided.emit({ verdict: 'keep' })"><kbd>K</kbd> Keep</button>
      <button matButton="outlined" (click)="decided.emit({ verdict: 'drop' })"><kbd>X</kbd> Leave out</button>
      <button matButton="outlined" [class.on]="mode() === 'merge'" (click)="open('merge')"><kbd>M</kbd> Merge</button>
      <button matButton="outlined" [class.on]="mode() === 'rename'" (click)="open('rename')">
        <kbd>R</kbd> Rename
      </button>
    </div>
    @if (mode() === 'merge') {
      <label class="field"
        >{{ t.label }} is the same as
        <mat-form-field><input matInput #box (input)="typed.set(box.value)" (keydown.enter)="mergeFirst()" (keydown.escape)="mode.set(null)" /></mat-form-field>
      </label>
      @for (other of offered(); track other.key) {
        <button matButton="outlined" class="small" (click)="merge(other)">
          {{ other.label }} ({{ counted(other.messages, 'message') }})
        </button>
      } @empty {
        <p class="soft">Nothing else is called so.</p>
      }
    } @else if (mode() === 'rename') {
      <label class="field"
        >It is called
        <mat-form-field><input matInput #box [value]="t.label" (keydown.enter)="rename(box.value)" (keydown.escape)="mode.set(null)" /></mat-form-field>
      </label>
      <button matButton="filled" (click)="rename(box.value)">Rename</button>
    }
    @if (hasKinds()) {
      <div class="kinds" role="group" aria-label="Kind">
        @for (kind of kinds; track kind; let i = $index) {
          <button matButton="outlined" class="small" [class.on]="t.kind === kind" (click)="decided.emit({ verdict: 'kind', kind })">
            <kbd>{{ i + 1 }}</kbd> {{ kind }}
          </button>
        }
      </div>
    }
  `,
  styles: `
    :host {
      display: block;
      margin-bottom: 18px;
    }
    h2 {
      margin: 0;
      overflow-wrap: anywhere;
    }
    .acts,
    .kinds {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      margin: 8px 0;
    }
    .on {
      border-color: var(--thread);
      color: var(--thread);
    }
    kbd {
      font: 500 11px/1 var(--ui);
      border: 1px solid var(--line);
      border-radius: 3px;
      padding: 1px 4px;
      color: var(--soft);
    }
  `,
})
export class ThingPane {
  readonly study = input.required<string>();
  readonly thing = input.required<FoundThing>();
  /** Others of the same sort, into which it can be merged. */
  readonly others = input.required<readonly FoundThing[]>();
  readonly hasKinds = input(false);
  readonly decided = output<Verdict>();
  private readonly box = viewChild<ElementRef<HTMLInputElement>>('box');
  protected readonly kinds = TidyKind.options;
  protected readonly counted = counted;
  /** A signal of its own, so that the same thing read anew leaves what is being typed alone. */
  private readonly key = computed(() => this.thing().key);
  /** What is being typed; another thing begins anew. */
  protected readonly mode = linkedSignal<string, 'merge' | 'rename' | null>({
    source: this.key,
    computation: () => null,
  });
  protected readonly typed = linkedSignal({ source: this.key, computation: () => '' });
  protected readonly offered = computed(() => {
    const { key } = this.thing();
    const sought = fold(this.typed());
    return this.others()
      .filter((other) => other.key !== key && other.state !== 'merged' && other.state !== 'dropped')
      .filter(({ label }) => sought === '' || fold(label).includes(sought))
      .slice(0, OFFERED);
  });
  /** Opens the field for merging or renaming, and goes there. */
  open(mode: 'merge' | 'rename'): void {
    this.mode.set(mode);
    setTimeout(() => this.box()?.nativeElement.select());
  }

  /** Whether a field waits for what is typed. */
  isOpen(): boolean {
    return this.mode() !== null;
  }

  protected mergeFirst(): void {
    const [first] = this.offered();
    if (first) this.merge(first);
  }

  protected merge(other: FoundThing): void {
    this.mode.set(null);
    this.decided.emit({ verdict: 'merge', into: other.key });
  }

  protected rename(label: string): void {
    if (label.trim() === '') return;
    this.mode.set(null);
    this.decided.emit({ verdict: 'rename', label: label.trim() });
  }
}
