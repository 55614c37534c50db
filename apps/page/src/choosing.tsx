import { columnTitle, formatCount, numbersOf } from '@pebble/core';
import { held, whole } from './held';
import { ALL, groups, numberColumns, picked, sought, type Sought } from './looking';
import { Days } from './days';

let heaviest = 0;
for (const weight of numbersOf(whole.map.network.edges, 'weight')) heaviest = Math.max(heaviest, weight);

function change(part: Partial<Sought>): void {
  sought.value = { ...sought.value, ...part };
}

const numberIn = (text: string): number | null =>
  text.trim() === '' || Number.isNaN(Number(text)) ? null : Number(text);

/** What of the map is shown: by groups, weight of ties, a number, names and time. */
export function Choosing() {
  const { atLeast, column, from, until, named, alone, without } = sought.value;
  return (
    <form onSubmit={(event) => event.preventDefault()}>
      {groups.length > 0 && (
        <fieldset>
          <legend>{columnTitle(whole.map.description.colour.column)}</legend>
          <ul class="groups">
            {groups.map(({ label, colour, nodes, at }) => (
              <li key={at}>
                <label>
                  <input
                    type="checkbox"
                    checked={!without.has(at)}
                    onChange={(event) => {
                      const left = new Set(without);
                      if (event.currentTarget.checked) left.delete(at);
                      else left.add(at);
                      change({ without: left });
                    }}
                  />
                  <span class="dot" style={{ background: colour }} />
                  {label}
                </label>
                <button
                  type="button"
                  class="link soft"
                  aria-label={`Read ${label}`}
                  onClick={() => (picked.value = { what: 'group', colour: at })}
                >
                  {formatCount(nodes)}
                </button>
              </li>
            ))}
          </ul>
        </fieldset>
      )}
      <label>
        Ties of at least this weight
        <input
          type="number"
          min={0}
          max={heaviest}
          step="any"
          value={atLeast}
          onInput={(event) => change({ atLeast: numberIn(event.currentTarget.value) ?? 0 })}
        />
      </label>
      {numberColumns.length > 0 && (
        <fieldset class="range">
          <legend>Nodes by a number</legend>
          <select
            aria-label="Which number"
            value={column}
            onChange={(event) => change({ column: event.currentTarget.value })}
          >
            {numberColumns.map((name) => (
              <option key={name} value={name}>
                {held.map.infos[name]?.title ?? name}
              </option>
            ))}
          </select>
          <label>
            from
            <input
              type="number"
              step="any"
              value={from ?? ''}
              onInput={(event) => change({ from: numberIn(event.currentTarget.value) })}
            />
          </label>
          <label>
            to
            <input
              type="number"
              step="any"
              value={until ?? ''}
              onInput={(event) => change({ until: numberIn(event.currentTarget.value) })}
            />
          </label>
        </fieldset>
      )}
      <label>
        Named
        <input
          type="text"
          placeholder="one | another"
          value={named}
          onInput={(event) => change({ named: event.currentTarget.value })}
        />
      </label>
      <label class="tick">
        <input
          type="checkbox"
          checked={alone}
          onChange={(event) => change({ alone: event.currentTarget.checked })}
        />
        nodes without ties too
      </label>
      {held.map.days && <Days />}
      {sought.value !== ALL && (
        <p>
          <button type="button" onClick={() => (sought.value = ALL)}>
            Show all again
          </button>
        </p>
      )}
    </form>
  );
}
