import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';
import { MatTooltip } from '@angular/material/tooltip';

export interface Stop {
  readonly path: string;
  readonly name: string;
  readonly note: string;
}

const PITCH = 82;

/** The rail: a thread with a pebble for each stop, in the order in which people work. */
@Component({
  selector: 'pt-rail',
  imports: [MatTooltip, RouterLink, RouterLinkActive],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <a class="mark" routerLink="/" matTooltip="All studies" aria-label="All studies">
      <svg width="40" height="40" viewBox="0 0 38 38" aria-hidden="true">
        <path d="M4 28C12 8 20 34 34 9" fill="none" stroke="var(--thread)" stroke-width="2.4" />
        <ellipse cx="8" cy="24" rx="6" ry="4.6" fill="var(--ink)" />
        <ellipse cx="20" cy="21" rx="4.4" ry="3.6" fill="var(--tide)" />
        <ellipse cx="31" cy="12" rx="5" ry="4" fill="var(--ink)" />
      </svg>
    </a>
    <nav aria-label="Stops">
      <svg class="thread" width="84" [attr.height]="height()" aria-hidden="true">
        <path [attr.d]="thread()" fill="none" stroke="var(--line)" stroke-width="2" />
      </svg>
      @for (stop of stops(); track stop.path) {
        <a
          class="stop"
          [routerLink]="['/studies', study(), stop.path]"
          routerLinkActive="on"
          #link="routerLinkActive"
          [attr.aria-current]="link.isActive ? 'page' : null"
        >
          <span class="pebble"></span>
          <b>{{ stop.name }}</b>
          <i [matTooltip]="stop.note">{{ stop.note }}</i>
        </a>
      }
    </nav>
  `,
  styles: `
    :host {
      display: block;
      background: var(--paper2);
      border-right: 1px solid var(--line);
      overflow: hidden auto;
    }
    .mark {
      display: block;
      width: 40px;
      margin: 12px auto 12px;
    }
    nav {
      position: relative;
    }
    .thread {
      position: absolute;
      left: 0;
      top: 0;
      pointer-events: none;
    }
    .stop {
      position: relative;
      display: flex;
      flex-direction: column;
      align-items: center;
      height: ${PITCH}px;
      padding-top: 6px;
      text-decoration: none;
      color: var(--soft);
      font-size: 13px;
      text-align: center;
    }
    .pebble {
      width: 18px;
      height: 14px;
      border-radius: 50%;
      background: var(--paper);
      border: 1.6px solid var(--ink);
      margin-bottom: 4px;
    }
    .stop:nth-of-type(even) .pebble {
      width: 16px;
      height: 13px;
      transform: rotate(-14deg);
    }
    .stop b {
      font-weight: 500;
      background: var(--paper2);
      padding: 0 4px;
    }
    .stop i {
      font-style: normal;
      font-size: 11px;
      color: var(--faint);
      background: var(--paper2);
      line-height: 1.2;
      padding: 0 2px;
      max-width: 84px;
      display: -webkit-box;
      -webkit-box-orient: vertical;
      -webkit-line-clamp: 2;
      overflow: hidden;
      overflow-wrap: anywhere;
    }
    .stop:hover b {
      color: var(--ink);
    }
    .on {
      color: var(--thread);
    }
    .on b {
      font-weight: 700;
    }
    .on .pebble {
      background: var(--thread);
      border-color: var(--thread);
      width: 22px;
      height: 17px;
      margin-top: -2px;
      margin-bottom: 3px;
    }
    @media (forced-colors: active) {
      .on .pebble {
        forced-color-adjust: none;
        background: Highlight;
      }
    }
    /* On a narrow window the stops stand below the screen. */
    @media (max-width: 700px) {
      :host {
        border-right: 0;
        border-top: 1px solid var(--line);
      }
      .mark,
      .thread,
      .stop i {
        display: none;
      }
      nav {
        display: flex;
      }
      .stop {
        flex: 1;
        height: 50px;
      }
    }
  `,
})
export class Rail {
  readonly study = input.required<string>();
  readonly stops = input.required<readonly Stop[]>();
  protected readonly height = computed(() => this.stops().length * PITCH);
  protected readonly thread = computed(() => {
    let path = 'M42 4';
    this.stops()
      .slice(1)
      .forEach((_, i) => {
        const y = 13 + i * PITCH;
        const side = i % 2 ? 37 : 47;
        path += ` C${side} ${y + 26} ${84 - side} ${y + 56} 42 ${y + PITCH}`;
      });
    return path;
  });
}
