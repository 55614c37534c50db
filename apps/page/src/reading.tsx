import { counted, formatCount, formatValue, numbersOf } from '@pebble/core';
import { held, whole } from './held';
import { endsOf, groups, labels, map, picked, valueOf } from './looking';
import { NodeList } from './node-list';

const MOST = 40;
const { network } = whole.map;
const [source, target, weight] = ['source', 'target', 'weight'].map((name) => numbersOf(network.edges, name));

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
  const { edges } = map.value;
  const out = Array.from(edges).filter((e) => source[e] === node);
  const into = Array.from(edges).filter((e) => target[e] === node && source[e] !== node);
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
        <Ties heading="Tied with" ties={[...out, ...into]} from={node} />
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
  const first = [...ties].sort((a, b) => weight[b] - weight[a] || a - b).slice(0, MOST);
  const other = (tie: number): number => (source[tie] === from ? target[tie] : source[tie]);
  return (
    <>
      <h4>
        {heading} {formatCount(ties.length)}
      </h4>
      <NodeList
        nodes={first.map(other)}
        behind={(at) => (
          <button
            type="button"
            class="link soft"
            onClick={() => (picked.value = { what: 'tie', tie: first[at] })}
          >
            {formatValue(weight[first[at]])}
          </button>
        )}
      />
      {ties.length > MOST && <p class="soft">The {MOST} strongest; all stand in the table of ties.</p>}
    </>
  );
}

function Tie({ tie }: { readonly tie: number }) {
  const [from, to] = endsOf(tie);
  const behind = held.map.messages?.behind[tie] ?? [];
  const kinds = Object.entries(network.edges).filter(
    ([name]) => !['source', 'target', 'weight'].includes(name),
  );
  return (
    <>
      <h3>
        {labels[from]} {held.map.directed ? '→' : '–'} {labels[to]}
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
      <NodeList nodes={nodes.slice(0, MOST)} />
    </>
  );
}
