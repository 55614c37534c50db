import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import type { Network } from '@pebble/contract';
import { nodeWords, wovenAs } from '@pebble/core';
import { slicesOf, wholesIn } from '../shared/slices';
import { whyAgain } from '../shared/why-again';
import { counted, moment } from '../shared/words';

/** The networks of a study, each with its sentence. */
@Component({
  selector: 'pt-network-list',
  imports: [MatButton, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Networks of this study</h2>
    <ul>
      @for (network of wholes(); track network.id) {
        <li>
          <div>
            <h3>
              <a [routerLink]="['/studies', study(), 'map', network.id]">{{ network.name }}</a>
            </h3>
            <p class="says">{{ network.sentence }}</p>
            <p class="faint">{{ facts(network) }}</p>
            @if (slicesOf(network).length > 0) {
              <details>
                <summary>{{ counted(slicesOf(network).length, 'slice') }} in time</summary>
                @for (one of slicesOf(network); track one.id) {
                  <a class="slice" [routerLink]="['/studies', study(), 'map', one.id]">
                    {{ one.slice?.title }}
                    <span class="faint">{{ counted(one.edges, 'tie') }}</span>
                  </a>
                }
              </details>
            }
            @if (network.weave && (network.stale || network.forgotten)) {
              <p class="stale">
                {{ whyAgain(network) }}
                <button matButton="outlined" (click)="wovenAgain.emit(network)">Weave again</button>
              </p>
            }
          </div>
          @if (network.weave) {
            <button matButton (click)="again.emit(network)">Use this sentence</button>
          }
          <button matButton
            class="danger"
            (click)="removed.emit(network)"
            [attr.aria-label]="'Delete ' + network.name"
          >
            Delete
          </button>
        </li>
      }
    </ul>
  `,
  styles: `
    ul {
      list-style: none;
      padding: 0;
      max-width: 880px;
    }
    li {
      display: flex;
      align-items: center;
      gap: 8px;
      border-top: 1px solid var(--line);
      padding: 12px 0;
    }
    li > div {
      flex: 1;
      min-width: 0;
    }
    li h3 a {
      color: var(--ink);
      text-decoration: none;
    }
    li h3 a:hover {
      color: var(--thread);
    }
    summary {
      cursor: pointer;
      color: var(--tide);
      font-size: 14px;
    }
    .slice {
      display: inline-block;
      margin: 2px 14px 2px 0;
      color: var(--ink);
    }
    .stale {
      color: var(--thread);
    }
    .says {
      font: 15px/1.4 var(--serif);
    }
  `,
})
export class NetworkList {
  readonly study = input.required<string>();
  readonly networks = input.required<readonly Network[]>();
  readonly again = output<Network>();
  readonly removed = output<Network>();
  /** The same sentence, with the tidy decisions that hold now. */
  readonly wovenAgain = output<Network>();

  protected readonly counted = counted;
  /** Networks that are no slices, and slices of networks that are gone. */
  protected readonly wholes = computed(() => wholesIn(this.networks()));

  protected readonly whyAgain = whyAgain;

  protected slicesOf({ id }: Network): Network[] {
    return slicesOf(this.networks(), id);
  }

  protected facts(network: Network): string {
    const { nodes, edges, weave, opened, createdAt, decisions } = network;
    const made = weave ? 'woven' : opened ? `from the package “${opened.title}”, made` : 'taken in';
    return `${counted(nodes, ...nodeWords(wovenAs(network)))} · ${counted(edges, 'tie')} · ${made} ${moment(Date.parse(createdAt))} UTC${decisions > 0 ? ` · after ${counted(decisions, 'tidy decision')}` : ''}`;
  }
}
