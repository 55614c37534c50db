import { useEffect, useRef } from 'preact/hooks';
import { effect } from '@preact/signals';
import { fitView, formatValue, marginFor, numbersOf, type Size, type View } from '@pebble/core';
import { held, whole } from './held';
import { endsOf, focus, hovered, labels, map, picked, seenPhrase, size, theme, view } from './looking';
import { paint, pick } from './painter';

const STEP = 60;
const CLOSER = 1.25;
/** Farther than this a press is a move. */
const MOVED = 4;
const SLIM = { left: 24, right: 24, top: 24, bottom: 24 };

function fitted(of: Size): View {
  const { corner } = map.value.description.legend;
  const margin = of.width < 720 ? SLIM : marginFor(corner, { top: 24, bottom: 24 });
  return fitView(whole.x, whole.y, map.value.radius, map.value.nodes, of, margin);
}

function zoom(by: number, x: number, y: number): void {
  const now = view.value;
  if (!now) return;
  const scale = Math.min(60, Math.max(0.005, now.scale * by));
  const factor = scale / now.scale;
  view.value = { scale, x: x - (x - now.x) * factor, y: y - (y - now.y) * factor };
}

function move(dx: number, dy: number): void {
  const now = view.value;
  if (now) view.value = { ...now, x: now.x + dx, y: now.y + dy };
}

function showAll(): void {
  view.value = fitted(size.value);
}

/** What a key does with the map; nothing for others. */
function keyed(key: string): (() => void) | null {
  const { width, height } = size.value;
  const middle = [width / 2, height / 2] as const;
  switch (key) {
    case '+':
    case '=':
      return () => zoom(CLOSER, ...middle);
    case '-':
      return () => zoom(1 / CLOSER, ...middle);
    case '0':
      return showAll;
    case 'ArrowLeft':
      return () => move(STEP, 0);
    case 'ArrowRight':
      return () => move(-STEP, 0);
    case 'ArrowUp':
      return () => move(0, STEP);
    case 'ArrowDown':
      return () => move(0, -STEP);
    case 'Escape':
      return () => (picked.value = null);
    default:
      return null;
  }
}

/** What is told of the thing under the pointer; null where there is none. */
function wordsAt(x: number, y: number): string | null {
  const found = pick();
  const node = found?.nodeAt(x, y) ?? null;
  if (node !== null) {
    const { column } = map.value.description.size;
    const info = held.map.infos[column];
    const value = map.value.network.nodes[column];
    const number = ArrayBuffer.isView(value) ? `, ${info?.title ?? column} ${formatValue(value[node])}` : '';
    return `${labels[node]}${number}`;
  }
  const tie = found?.edgeAt(x, y) ?? null;
  if (tie === null) return null;
  const [source, target] = endsOf(tie);
  const weight = numbersOf(map.value.network.edges, 'weight')[tie];
  return `${labels[source]} ${held.map.directed ? '→' : '–'} ${labels[target]}, weight ${formatValue(weight)}`;
}

/** The map, drawn by the same program as in the study that it is from. It is moved by pointers, fingers and keys. */
export function MapCanvas() {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current!;
    const box = element.parentElement!;
    const measured = new ResizeObserver(() => {
      const before = size.value;
      size.value = { width: Math.max(80, box.clientWidth), height: Math.max(80, box.clientHeight) };
      const isNew = before.width !== size.value.width || before.height !== size.value.height;
      if (view.value === null || isNew) showAll();
    });
    measured.observe(box);
    let pending = 0;
    const stop = effect(() => {
      // Whatever a picture depends on is read here, so that it is painted anew when that changes.
      void [map.value, view.value, size.value, focus.value, theme.value];
      cancelAnimationFrame(pending);
      pending = requestAnimationFrame(() => {
        paint(element);
        element.dataset['painted'] = 'true';
      });
    });
    return () => {
      stop();
      measured.disconnect();
    };
  }, []);
  const fingers = useRef(new Map<number, { x: number; y: number }>());
  const moved = useRef(0);
  const down = (event: PointerEvent): void => {
    canvas.current!.setPointerCapture(event.pointerId);
    if (fingers.current.size === 0) moved.current = 0;
    fingers.current.set(event.pointerId, { x: event.offsetX, y: event.offsetY });
    hovered.value = null;
  };
  const drag = (event: PointerEvent): void => {
    const at = { x: event.offsetX, y: event.offsetY };
    const before = fingers.current.get(event.pointerId);
    if (!before) {
      const words = wordsAt(at.x, at.y);
      hovered.value = words === null ? null : { words, ...at };
      return;
    }
    const others = [...fingers.current].filter(([id]) => id !== event.pointerId).map(([, place]) => place);
    moved.current += Math.hypot(at.x - before.x, at.y - before.y);
    fingers.current.set(event.pointerId, at);
    const [other] = others;
    if (other) {
      const apart = (a: { x: number; y: number }): number => Math.hypot(a.x - other.x, a.y - other.y);
      zoom(apart(at) / Math.max(1, apart(before)), (at.x + other.x) / 2, (at.y + other.y) / 2);
    } else if (moved.current > MOVED) move(at.x - before.x, at.y - before.y);
  };
  const up = (event: PointerEvent): void => {
    const isPress = fingers.current.has(event.pointerId) && moved.current <= MOVED;
    fingers.current.delete(event.pointerId);
    if (!isPress || event.type === 'pointercancel') return;
    const found = pick();
    const node = found?.nodeAt(event.offsetX, event.offsetY, 8) ?? null;
    const tie = node === null ? (found?.edgeAt(event.offsetX, event.offsetY) ?? null) : null;
    picked.value = node !== null ? { what: 'node', node } : tie !== null ? { what: 'tie', tie } : null;
  };
  return (
    <div class="map">
      <canvas
        ref={canvas}
        role="img"
        tabIndex={0}
        aria-label={`${held.told.short} Arrow keys move it, plus and minus zoom, 0 shows all. Nodes are found by the search beside it.`}
        onPointerDown={down}
        onPointerMove={drag}
        onPointerUp={up}
        onPointerCancel={up}
        onPointerLeave={() => (hovered.value = null)}
        onWheel={(event) => {
          event.preventDefault();
          zoom(Math.exp(-event.deltaY / 500), event.offsetX, event.offsetY);
        }}
        onKeyDown={(event) => {
          const act = event.ctrlKey || event.metaKey || event.altKey ? null : keyed(event.key);
          if (!act) return;
          event.preventDefault();
          act();
        }}
      />
      <Hover />
      <div class="zoom">
        <button
          type="button"
          aria-label="Closer"
          onClick={() => zoom(CLOSER, size.value.width / 2, size.value.height / 2)}
        >
          +
        </button>
        <button
          type="button"
          aria-label="Farther"
          onClick={() => zoom(1 / CLOSER, size.value.width / 2, size.value.height / 2)}
        >
          −
        </button>
        <button type="button" onClick={showAll}>
          All
        </button>
      </div>
      <p class="seen" role="status">
        {seenPhrase}
      </p>
    </div>
  );
}

function Hover() {
  const now = hovered.value;
  if (!now) return null;
  return (
    <div class="hover" style={{ left: `${now.x + 12}px`, top: `${now.y + 12}px` }}>
      {now.words}
    </div>
  );
}
