import { useEffect } from 'preact/hooks';
import { useSignal } from '@preact/signals';
import { messagesByDay } from '@pebble/core';
import { whole } from './held';
import { DAY, sought } from './looking';

const counts = whole.map.network.dailyTieCounts;
const { first, messages } = counts ? messagesByDay(counts) : { first: 0, messages: new Float64Array(0) };
const last = messages.length - 1;
const most = messages.reduce((highest, one) => Math.max(highest, one), 1);
const HIGH = 40;
/** Milliseconds for which a part of the time is seen while it passes. */
const PACE = 700;

const dayOf = (at: number): string => new Date(first + at * DAY).toISOString().slice(0, 10);
const placeOf = (day: string): number => Math.round((Date.parse(day) - first) / DAY);

function show(from: number, until: number): void {
  const bounds = [Math.max(0, Math.min(from, until)), Math.min(last, Math.max(from, until))] as const;
  sought.value = { ...sought.value, days: bounds[0] === 0 && bounds[1] === last ? null : bounds };
}

/** A part of the time, and its passing: a week, or what was chosen, moves over all days. */
export function Days() {
  const isPassing = useSignal(false);
  const [from, until] = sought.value.days ?? [0, last];
  useEffect(() => {
    if (!isPassing.value) return;
    const width = sought.value.days ? until - from : Math.min(6, last);
    let at = sought.value.days && until < last ? from : -1;
    const timer = setInterval(() => {
      at++;
      if (at + width > last) isPassing.value = false;
      else show(at, at + width);
    }, PACE);
    return () => clearInterval(timer);
    // The width that was chosen when it began is kept while it passes.
  }, [isPassing.value]);
  if (last < 1) return null;
  return (
    <fieldset>
      <legend>Time</legend>
      <svg
        viewBox={`0 0 ${messages.length} ${HIGH}`}
        preserveAspectRatio="none"
        class="bars"
        role="img"
        aria-label={`Messages a day, at most ${most}`}
      >
        {Array.from(messages, (count, at) => (
          <rect
            key={at}
            x={at}
            width={0.85}
            y={HIGH - (HIGH * count) / most}
            height={(HIGH * count) / most}
            class={at >= from && at <= until ? 'in' : 'out'}
          />
        ))}
      </svg>
      <div class="row">
        <label>
          from
          <input
            type="date"
            min={dayOf(0)}
            max={dayOf(last)}
            value={dayOf(from)}
            onChange={(event) => show(placeOf(event.currentTarget.value), until)}
          />
        </label>
        <label>
          to
          <input
            type="date"
            min={dayOf(0)}
            max={dayOf(last)}
            value={dayOf(until)}
            onChange={(event) => show(from, placeOf(event.currentTarget.value))}
          />
        </label>
      </div>
      <button type="button" onClick={() => (isPassing.value = !isPassing.value)}>
        {isPassing.value ? 'Stop' : 'Let it pass'}
      </button>{' '}
      {sought.value.days && (
        <button type="button" onClick={() => (sought.value = { ...sought.value, days: null })}>
          All days
        </button>
      )}
    </fieldset>
  );
}
