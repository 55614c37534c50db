import { columnTitle, formatCount } from '@pebble/core';
import { held, whole } from './held';
import { ALL, groups, numberColumns, picked, sought, type Sought } from './looking';
import { Days } from './days';

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
      <NumberField
        name="Ties of at least this weight"
        value={atLeast}
        changed={(bound) => change({ atLeast: bound ?? 0 })}
      />
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
          <NumberField name="from" value={from} changed={(bound) => change({ from: bound })} />
          <NumberField name="to" value={until} changed={(bound) => change({ until: bound })} />
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

interface NumberFieldProps {
  readonly name: string;
  readonly value: number | null;
  readonly changed: (value: number | null) => void;
}

/** A number, or none. */
function NumberField({ name, value, changed }: NumberFieldProps) {
  return (
    <label>
      {name}
      <input
        type="number"
        step="any"
        value={value ?? ''}
        onInput={(event) => changed(numberIn(event.currentTarget.value))}
      />
    </label>
  );
}
