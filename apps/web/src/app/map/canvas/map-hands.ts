import { computed, signal } from '@angular/core';
import {
  moveGrip,
  nodesWithin,
  numbersOf,
  strokeOf,
  toggled,
  toScreen,
  type Grip,
  type Picker,
} from '@pebble/core';
import { nodeHover, tieHover, type HoverWords } from './hover-words';
import type { Places } from '../session/places';
import type { Gripped, InHand } from './scene-painter';
import type { MapSession } from '../session/map-session';

/** What is told of the thing under the pointer, and where. */
interface Hover extends HoverWords {
  readonly x: number;
  readonly y: number;
}

/** Where a pointer went down, and on what. */
interface Press {
  readonly node: number | null;
  readonly grip: Grip | null;
  readonly x: number;
  readonly y: number;
  /** Whether a press begins a line, or adds to what is chosen. */
  readonly adds: boolean;
  moved: boolean;
}

/** What stands where on the painted map. */
interface Found {
  pick(): Picker | null;
  gripAt(x: number, y: number): Grip | null;
}

/** How wide a line is that is drawn by hand, in pixels. */
export const STROKE = 34;

/** What pointers do on the map: drag nodes, names and notes, draw lines, choose and read. */
export class MapHands implements InHand {
  readonly hover = signal<Hover | null>(null);
  /** The line that is being drawn round nodes, on the screen. */
  readonly lasso = signal<readonly (readonly [number, number])[] | null>(null);
  readonly gripped = signal<Gripped | null>(null);
  /** Nodes that are being dragged, and how far. */
  private readonly dragged = signal<{ nodes: readonly number[]; dx: number; dy: number } | null>(null);
  private pressed: Press | null = null;

  readonly places = computed<Places | null>(() => {
    const places = this.session.places();
    const dragged = this.dragged();
    if (!places || !dragged) return places;
    const x = places.x.slice();
    const y = places.y.slice();
    for (const v of dragged.nodes) {
      x[v] += dragged.dx;
      y[v] += dragged.dy;
    }
    return { x, y };
  });

  /** @param choosing whether a line chooses nodes where the map would be moved otherwise */
  constructor(
    private readonly canvas: () => HTMLCanvasElement,
    private readonly session: MapSession,
    private readonly found: () => Found,
    private readonly choosing: () => boolean,
  ) {}

  isMoving(): boolean {
    return this.dragged() !== null || this.gripped() !== null;
  }

  isPressed(): boolean {
    return this.pressed !== null;
  }

  press(event: PointerEvent): void {
    if (event.button !== 0) return;
    const { offsetX: x, offsetY: y } = event;
    const node = this.found().pick()?.nodeAt(x, y) ?? null;
    const adds = event.shiftKey || this.draws();
    const grip = node === null && !adds ? this.found().gripAt(x, y) : null;
    this.pressed = { node, grip, x, y, moved: false, adds };
    if (node !== null || grip || adds) this.canvas().setPointerCapture(event.pointerId);
  }

  move(event: PointerEvent): void {
    const { pressed } = this;
    const { offsetX: x, offsetY: y } = event;
    if (pressed && Math.hypot(x - pressed.x, y - pressed.y) > 3) pressed.moved = true;
    const view = this.session.view();
    if (!pressed) this.showHover(x, y);
    else if (pressed.moved && view && pressed.node !== null && !this.session.isDrawing()) {
      this.canvas().classList.add('dragging');
      this.hover.set(null);
      this.dragged.set({
        nodes: this.grabbed(pressed.node),
        dx: (x - pressed.x) / view.scale,
        dy: (y - pressed.y) / view.scale,
      });
    } else if (pressed.moved && pressed.grip) {
      this.canvas().classList.add('dragging');
      this.hover.set(null);
      this.gripped.set({ grip: pressed.grip, dx: x - pressed.x, dy: y - pressed.y });
    } else if (pressed.moved && pressed.adds) {
      this.hover.set(null);
      this.lasso.update((line) => [...(line ?? [[pressed.x, pressed.y] as const]), [x, y] as const]);
    }
  }

  release(event: PointerEvent): void {
    const { pressed } = this;
    this.pressed = null;
    this.canvas().classList.remove('dragging');
    const dragged = this.dragged();
    const line = this.lasso();
    if (dragged) {
      const places = this.session.places()!;
      this.dragged.set(null);
      const to = dragged.nodes.map((v) => [places.x[v] + dragged.dx, places.y[v] + dragged.dy] as const);
      this.session.moveNodes(dragged.nodes, to);
    } else if (this.gripped()) {
      this.putGripped();
    } else if (line) {
      this.lasso.set(null);
      if (this.session.isDrawing()) this.keepStroke(line);
      else this.chooseWithin(line);
    } else if (pressed?.grip && !pressed.moved) {
      this.readGrip(pressed.grip);
    } else if (pressed && !pressed.moved) {
      this.selectAt(event.offsetX, event.offsetY, pressed.adds);
    }
  }

  /** A gesture that the system took away leaves everything as it was. */
  cancel(): void {
    this.pressed = null;
    this.dragged.set(null);
    this.gripped.set(null);
    this.lasso.set(null);
  }

  private putGripped(): void {
    const gripped = this.gripped();
    const places = this.places();
    const view = this.session.view();
    this.gripped.set(null);
    if (!gripped || !places || !view) return;
    const description = moveGrip(this.session.description(), gripped.grip, gripped.dx, gripped.dy, {
      places,
      view,
    });
    this.session.describe(description);
  }

  /** A name reads its node, a note what it speaks of. */
  private readGrip({ what, of }: Grip): void {
    const at =
      what === 'name' ? { what: 'node' as const, node: of } : this.session.description().notes[of]?.at;
    if (at?.what === 'node') this.session.selectNode(at.node);
    else if (at) this.session.selectTie({ source: at.source, target: at.target });
  }

  /** What moves with a node: all that are chosen, if it is one of them. */
  private grabbed(node: number): readonly number[] {
    const chosen = this.session.chosen();
    return chosen.includes(node) ? chosen : [node];
  }

  /** Whether a line is drawn where the map would be moved otherwise. */
  draws(): boolean {
    return this.choosing() || this.session.isDrawing();
  }

  /** Keeps a line that was drawn as a part of the map. */
  private keepStroke(line: readonly (readonly [number, number])[]): void {
    this.session.endDrawing();
    const map = this.session.prepared();
    const places = this.places();
    const view = this.session.view();
    if (!map || !places || !view || map.nodes.length === 0) return;
    const screen = toScreen({ map, x: places.x, y: places.y, view });
    const before = this.session.description();
    const strokes = [...before.regions.strokes, strokeOf(line, screen, map.nodes, STROKE, view.scale)];
    const description = { ...before, regions: { ...before.regions, strokes } };
    this.session.describe(description);
  }

  /** Adds the nodes within a line to those that are chosen. */
  private chooseWithin(line: readonly (readonly [number, number])[]): void {
    const map = this.session.prepared();
    const places = this.places();
    const view = this.session.view();
    if (!map || !places || !view) return;
    const inside = nodesWithin(line, toScreen({ map, x: places.x, y: places.y, view }), map.nodes);
    const nodes = [...new Set([...this.session.chosen(), ...inside])].sort((a, b) => a - b);
    this.session.chooseNodes(nodes);
  }

  private selectAt(x: number, y: number, adds: boolean): void {
    const node = this.found().pick()?.nodeAt(x, y) ?? null;
    if (adds) {
      if (node === null) return;
      this.session.chooseNodes(toggled(this.session.chosen(), node));
      return;
    }
    if (node !== null) {
      this.session.selectNode(node);
      return;
    }
    const edge = this.found().pick()?.edgeAt(x, y) ?? null;
    const data = this.session.data();
    if (edge === null || !data) {
      this.session.clearSelection();
      return;
    }
    const [source, target] = [numbersOf(data.edges, 'source')[edge], numbersOf(data.edges, 'target')[edge]];
    this.session.selectTie({ source, target });
  }

  private showHover(x: number, y: number): void {
    // Of a part of the time, as it was then.
    const data = this.session.prepared()?.network;
    const picker = this.found().pick();
    const node = picker?.nodeAt(x, y) ?? null;
    const edge = node === null ? (picker?.edgeAt(x, y, 3) ?? null) : null;
    const isOnGrip = node === null && this.found().gripAt(x, y) !== null;
    this.canvas().classList.toggle('node', node !== null || edge !== null || isOnGrip);
    if (!data || (node === null && edge === null)) {
      if (this.hover()) this.hover.set(null);
      return;
    }
    const { colour, number } = this.session.description().ties;
    const told = colour === 'by number' ? number.column : null;
    const words =
      node !== null
        ? nodeHover(data, node)
        : tieHover(data, edge!, this.session.network()?.directed ?? true, told);
    this.hover.set({ x, y, ...words });
  }
}
