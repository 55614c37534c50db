import { neighbourRows, withoutSelfLoops } from '../../graph/csr';
import type { Graph } from '../../graph/graph';
import { Random } from '../../random';
import { Repulsion } from './repulsion';
import type { Places, Running } from '../common/running';

export interface AttractionSettings {
  seed: number;
  /** Pull towards the middle, which grows with the distance from it; 0 for none. */
  gravity: number;
  /** Strength of the push between nodes. */
  repulsion: number;
  /** How far communities are pulled apart: attraction grows like the distance, like its root, or not at all. */
  apart?: 'little' | 'usual' | 'far';
  /** How much the weight of a tie pulls. */
  weights?: 'none' | 'root' | 'whole';
  /** Whether nodes with many ties are drawn to the middle, which pulls them more, or pushed to the rim: their ties pull less. */
  hubs?: 'usual' | 'middle' | 'rim';
  /** Where nodes begin; by chance where it is left out. */
  start?: Places | null;
  /** 1 for nodes that do not move. */
  fixed?: Uint8Array | null;
  /** How closely rest is looked for, beside what is usual. */
  rest?: number;
}

/**
 * Arrangement by attraction along ties and repulsion between all nodes, with masses of degree + 1. Attraction grows with the
 * square root of the distance, if not asked otherwise, half way between the linear model and the one that sets communities furthest apart
 * (Noack 2009, Phys. Rev. E 79); forces, the stronger of their two gravities and the speed of each node as in Jacomy et al. (2014), PLoS ONE 9,
 * e98679; repulsion by a quadtree. A tie of weight w pulls like its square root beside the mean of all, and neither very much nor nearly
 * nothing, so that one busy pair does not swallow the map and shares pull like counts. The graph is taken without direction and without
 * self-loops. Same graph and seed: same positions, to the last bit.
 */
export class Attraction implements Running {
  readonly x: Float64Array;
  readonly y: Float64Array;
  private readonly mass: Float64Array;
  /** How much the middle pulls each node at distance 1. */
  private readonly middle: Float64Array;
  private readonly from: Uint32Array;
  private readonly to: Uint32Array;
  private readonly pull: Float64Array;
  private readonly push: Repulsion;
  private forceX: Float64Array;
  private forceY: Float64Array;
  private lastX: Float64Array;
  private lastY: Float64Array;
  private speed = 1;
  private efficiency = 1;
  private quiet = 0;
  iterations = 0;

  constructor(
    graph: Graph,
    private readonly settings: AttractionSettings,
  ) {
    const n = graph.nodeCount;
    const rows = withoutSelfLoops(neighbourRows(graph));
    this.mass = new Float64Array(n);
    this.from = new Uint32Array(rows.neighbour.length / 2);
    this.to = new Uint32Array(this.from.length);
    this.pull = new Float64Array(this.from.length);
    let e = 0;
    for (let v = 0; v < n; v++) {
      this.mass[v] = 1 + rows.offset[v + 1] - rows.offset[v];
      for (let i = rows.offset[v]; i < rows.offset[v + 1]; i++) {
        if (rows.neighbour[i] < v) continue;
        this.from[e] = v;
        this.to[e] = rows.neighbour[i];
        this.pull[e++] = rows.weight[i];
      }
    }
    this.middle = this.mass.map((mass) => mass * settings.gravity * GRAVITY[settings.apart ?? 'usual']);
    if (settings.hubs === 'middle') this.drawHubs();
    this.weigh(settings.weights ?? 'root');
    this.x = new Float64Array(n);
    this.y = new Float64Array(n);
    if (settings.hubs === 'rim') this.weakenHubs();
    if (settings.start) {
      this.x.set(settings.start.x);
      this.y.set(settings.start.y);
    } else this.scatter(new Random(settings.seed));
    this.push = new Repulsion(n);
    this.forceX = new Float64Array(n);
    this.forceY = new Float64Array(n);
    this.lastX = new Float64Array(n);
    this.lastY = new Float64Array(n);
  }

  /** True once the nodes hardly move any more. */
  get atRest(): boolean {
    return this.quiet >= 12;
  }

  /** One round of forces and moves. */
  iterate(): void {
    [this.forceX, this.lastX] = [this.lastX, this.forceX];
    [this.forceY, this.lastY] = [this.lastY, this.forceY];
    this.forceX.fill(0);
    this.forceY.fill(0);
    this.push.addTo(this.x, this.y, this.mass, this.settings.repulsion, this.forceX, this.forceY);
    this.pullTogether();
    this.pullToMiddle();
    this.move();
    this.iterations++;
  }

  /**
   * Scales the nodes so that attraction and gravity on one side and repulsion on the other hold each other (of each force the sum of its
   * products with the places is the same), and returns by how much. So places in other units are a beginning that neither bursts nor falls
   * together.
   */
  balance(): number {
    const { x, y, mass, from, to, pull, settings } = this;
    let [attraction, gravity, all, squares] = [0, 0, 0, 0];
    for (let e = 0; e < from.length; e++) {
      const dx = x[to[e]] - x[from[e]];
      const dy = y[to[e]] - y[from[e]];
      const distance = Math.sqrt(dx * dx + dy * dy);
      attraction += pull[e] * distance * this.along(distance);
    }
    for (let v = 0; v < x.length; v++) {
      gravity += this.middle[v] * (x[v] * x[v] + y[v] * y[v]);
      all += mass[v];
      squares += mass[v] * mass[v];
    }
    const repulsion = (settings.repulsion * (all * all - squares)) / 2;
    if (!(attraction + gravity > 0) || !(repulsion > 0)) return 1;
    const powered = (s: number): number =>
      settings.apart === 'little' ? s * s : settings.apart === 'far' ? s : s * Math.sqrt(s);
    let [low, high] = [1e-6, 1e6];
    for (let i = 0; i < 100; i++) {
      const middle = Math.sqrt(low * high);
      if (attraction * powered(middle) + gravity * middle * middle < repulsion) low = middle;
      else high = middle;
    }
    for (let v = 0; v < x.length; v++) {
      x[v] *= low;
      y[v] *= low;
    }
    return low;
  }

  /** How much a tie of weight 1 and this length pulls. */
  private along(distance: number): number {
    switch (this.settings.apart) {
      case 'little':
        return distance;
      case 'far':
        return ROOT_LENGTH * ROOT_LENGTH;
      default:
        return ROOT_LENGTH * Math.sqrt(distance);
    }
  }

  /** Turns the weights of ties into how strongly they pull, 1 on average. */
  private weigh(influence: 'none' | 'root' | 'whole'): void {
    const { pull } = this;
    if (influence === 'none') pull.fill(1);
    if (influence === 'root') for (let e = 0; e < pull.length; e++) pull[e] = Math.sqrt(pull[e]);
    const mean = pull.reduce((sum, one) => sum + one, 0) / pull.length;
    if (!(mean > 0) || mean === Infinity) return;
    for (let e = 0; e < pull.length; e++) {
      const own = pull[e] / mean;
      pull[e] = own < WEAKEST ? WEAKEST : own > STRONGEST ? STRONGEST : own;
    }
  }

  private scatter(chance: Random): void {
    const radius = 10 * Math.sqrt(this.x.length);
    for (let v = 0; v < this.x.length; v++) {
      do {
        this.x[v] = (2 * chance.real() - 1) * radius;
        this.y[v] = (2 * chance.real() - 1) * radius;
      } while (this.x[v] ** 2 + this.y[v] ** 2 > radius * radius);
    }
  }

  /** The middle pulls a node the more, the more ties it has beside the mean of all. */
  private drawHubs(): void {
    const { mass, middle } = this;
    const mean = mass.reduce((sum, one) => sum + one, 0) / Math.max(1, mass.length);
    for (let v = 0; v < mass.length; v++) {
      const share = mass[v] / mean;
      if (share > 1) middle[v] *= share * share;
    }
  }

  /**
   * A tie of a node with many ties pulls less, and the middle does not pull such nodes at all: they are drawn there neither by all of their ties
   * nor by their weight, and stand farther out than the others.
   */
  private weakenHubs(): void {
    const mean = this.mass.reduce((sum, m) => sum + m, 0) / Math.max(1, this.mass.length);
    for (let e = 0; e < this.pull.length; e++)
      this.pull[e] *= mean / Math.max(this.mass[this.from[e]], this.mass[this.to[e]], mean);
    for (let v = 0; v < this.mass.length; v++) if (this.mass[v] > mean) this.middle[v] = 0;
  }

  private pullTogether(): void {
    const { x, y, from, to, pull, forceX, forceY } = this;
    const { apart } = this.settings;
    for (let e = 0; e < from.length; e++) {
      const a = from[e];
      const b = to[e];
      const dx = x[b] - x[a];
      const dy = y[b] - y[a];
      const distance = Math.sqrt(dx * dx + dy * dy) + 1e-9;
      const f =
        apart === 'little'
          ? pull[e]
          : apart === 'far'
            ? (pull[e] * ROOT_LENGTH * ROOT_LENGTH) / distance
            : (pull[e] * ROOT_LENGTH) / Math.sqrt(distance);
      forceX[a] += f * dx;
      forceY[a] += f * dy;
      forceX[b] -= f * dx;
      forceY[b] -= f * dy;
    }
  }

  private pullToMiddle(): void {
    const { x, y, forceX, forceY } = this;
    for (let v = 0; v < x.length; v++) {
      const f = this.middle[v];
      forceX[v] -= f * x[v];
      forceY[v] -= f * y[v];
    }
  }

  /** Moves each node along its force; one that swings to and fro moves less, as does all when many do. */
  private move(): void {
    const { x, y, mass, forceX, forceY, lastX, lastY } = this;
    const n = x.length;
    let swinging = 0;
    let traction = 0;
    for (let v = 0; v < n; v++) {
      const sx = forceX[v] - lastX[v];
      const sy = forceY[v] - lastY[v];
      const tx = forceX[v] + lastX[v];
      const ty = forceY[v] + lastY[v];
      swinging += mass[v] * Math.sqrt(sx * sx + sy * sy);
      traction += 0.5 * mass[v] * Math.sqrt(tx * tx + ty * ty);
    }
    this.adaptSpeed(swinging, traction, n);
    let moved = 0;
    let spreadOut = 0;
    const { fixed } = this.settings;
    for (let v = 0; v < n; v++) {
      if (fixed?.[v] === 1) continue;
      const sx = forceX[v] - lastX[v];
      const sy = forceY[v] - lastY[v];
      const swing = mass[v] * Math.sqrt(sx * sx + sy * sy);
      const factor = this.speed / (1 + Math.sqrt(this.speed * swing));
      const mx = forceX[v] * factor;
      const my = forceY[v] * factor;
      x[v] += mx;
      y[v] += my;
      moved += Math.sqrt(mx * mx + my * my);
      spreadOut += Math.sqrt(x[v] * x[v] + y[v] * y[v]);
    }
    this.quiet = moved < REST * (this.settings.rest ?? 1) * spreadOut ? this.quiet + 1 : 0;
  }

  private adaptSpeed(swinging: number, traction: number, n: number): void {
    const tolerable = 0.05 * Math.sqrt(n);
    let jitter = Math.max(Math.sqrt(tolerable), Math.min(10, (tolerable * traction) / (n * n)));
    if (traction > 0 && swinging / traction > 2) {
      if (this.efficiency > 0.05) this.efficiency *= 0.5;
      jitter = Math.max(jitter, 1);
    }
    const target = swinging > 0 ? (jitter * this.efficiency * traction) / swinging : this.speed;
    if (swinging > jitter * traction) {
      if (this.efficiency > 0.05) this.efficiency *= 0.7;
    } else if (this.speed < 1000) {
      this.efficiency *= 1.3;
    }
    this.speed += Math.min(target - this.speed, 0.5 * this.speed);
  }
}

/** How little and how much a tie pulls beside the mean of all. */
const WEAKEST = 0.1;
const STRONGEST = 10;

/** Keeps the pull of a tie of middling length as strong as in the linear model. */
const ROOT_LENGTH = 4;

/** How much a gravity of 1 pulls a node of mass 1 at distance 1; less where ties pull less over large distances. */
const GRAVITY = { little: 0.05, usual: 0.03, far: 0.002 };

/** At rest when the mean move is below this share of the mean distance from the middle. */
const REST = 0.0008;
