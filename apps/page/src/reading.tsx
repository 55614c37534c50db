import { counted, formatCount, formatValue, numbersOf } from '@pebble/core';
import { bringIntoView } from './bring-into-view';
import { held, whole } from './held';
import { endsOf, groups, labels, map, picked, valueOf } from './looking';

const MOST = 40;
const { network } = whole.map;
const weight = numbersOf(network.edges, 'weight');

/** What is picked on the map, with its numbers, its ties and the messages behind them. */
export function Reading() {
  const now = picked.value;
  if (!now) return <p class="soft">Pick a node or a tie on the map, or find a node by its name.</p>;
  return (
    <section class="reading" aria-label="What is picked">
      {now.what === 'node' && <Node node={now.node} />}
      {now.what === 'tie' && <Tie tie={now.tie} />}
      {now.what === 'group' && <Group colour={now.colour} />}
      <p>
        <button type="button" onClick={() => (picked.value = null)}>
          Let go
        </button>
      </p>
    </section>
  );
}

function Node({ node }: { readonly node: number }) {
  const ties = Array.from(map.value.edges).filter((e) => endsOf(e).includes(node));
  const out = ties.filter((e) => endsOf(e)[0] === node);
  const into = ties.filter((e) => endsOf(e)[0] !== node);
  return (
    <>
      <h3>{labels[node]}</h3>
      <dl>
        {Object.entries(held.map.infos)
          .filter(([name]) => valueOf(name, node) !== '')
          .map(([name, { title, how }]) => (
            <div key={name}>
              <dt title={how}>{title}</dt>
              <dd>{said(name, node)}</dd>
            </div>
          ))}
      </dl>
      {held.map.directed ? (
        <>
          <Ties heading="To" ties={out} from={node} />
          <Ties heading="From" ties={into} from={node} />
        </>
      ) : (
        <Ties heading="Tied with" ties={ties} from={node} />
      )}
    </>
  );
}

/** A value as it is written: groups by their titles. */
function said(column: string, node: number): string {
  const value = valueOf(column, node);
  const title = held.map.titles[column]?.[value];
  if (title) return title;
  return ArrayBuffer.isView(network.nodes[column]) ? formatValue(Number(value)) : value;
}

function Ties({
  heading,
  ties,
  from,
}: {
  readonly heading: string;
  readonly ties: readonly number[];
  readonly from: number;
}) {
  if (ties.length === 0) return null;
  const sorted = [...ties].sort((a, b) => weight[b] - weight[a] || a - b);
  const other = (tie: number): number => {
    const [source, target] = endsOf(tie);
    return source === from ? target : source;
  };
  return (
    <>
      <h4>
        {heading} {formatCount(ties.length)}
      </h4>
      <ul class="nodes">
        {sorted.slice(0, MOST).map((tie) => (
          <li key={tie}>
            <button
              type="button"
              class="link"
              onClick={() => {
                picked.value = { what: 'node', node: other(tie) };
                bringIntoView(other(tie));
              }}
            >
              {labels[other(tie)]}
            </button>{' '}
            <button type="button" class="link soft" onClick={() => (picked.value = { what: 'tie', tie })}>
              {formatValue(weight[tie])}
            </button>
          </li>
        ))}
      </ul>
      {ties.length > MOST && <p class="soft">The {MOST} strongest; all stand in the table of ties.</p>}
    </>
  );
}

function Tie({ tie }: { readonly tie: number }) {
  const [source, target] = endsOf(tie);
  const behind = held.map.messages?.behind[tie] ?? [];
  const kinds = Object.entries(network.edges).filter(
    ([name]) => !['source', 'target', 'weight'].includes(name),
  );
  return (
    <>
      <h3>
        {labels[source]} {held.map.directed ? '→' : '–'} {labels[target]}
      </h3>
      <dl>
        <div>
          <dt>weight</dt>
          <dd>{formatValue(weight[tie])}</dd>
        </div>
        {kinds
          .filter(([, values]) => ArrayBuffer.isView(values) && Number(values[tie]) > 0)
          .map(([name, values]) => (
            <div key={name}>
              <dt>{name}</dt>
              <dd>{formatValue(Number(values[tie]))}</dd>
            </div>
          ))}
      </dl>
      {behind.length > 0 && (
        <>
          <h4>{counted(behind.length, 'message')}</h4>
          {behind.map((at) => {
            const { by, time, text } = held.map.messages!.all[at];
            return (
              <blockquote key={at}>
                <p dir="auto">{text}</p>
                <footer>
                  {by}
                  {time === null ? '' : `, ${new Date(time).toISOString().slice(0, 10)}`}
                </footer>
              </blockquote>
            );
          })}
        </>
      )}
    </>
  );
}

function Group({ colour }: { readonly colour: number }) {
  const group = groups.find(({ at }) => at === colour);
  const nodes = Array.from(map.value.paintOrder).filter((v) => whole.map.colour[v] === colour);
  return (
    <>
      <h3>{group?.label}</h3>
      <p class="soft">{counted(nodes.length, ...held.map.nodeWords)}, the largest first.</p>
      <ul class="nodes">
        {nodes.slice(0, MOST).map((node) => (
          <li key={node}>
            <button
              type="button"
              class="link"
              onClick={() => {
                picked.value = { what: 'node', node };
                bringIntoView(node);
              }}
            >
              {labels[node]}
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
