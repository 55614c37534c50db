import { useComputed, useSignal } from '@preact/signals';
import { whole } from './held';
import { labels, map } from './looking';
import { goTo, NodeList } from './node-list';

const MOST = 12;

/** Finds nodes by what they are called. */
export function Finder() {
  const typed = useSignal('');
  const found = useComputed(() => {
    const text = typed.value.trim().toLowerCase();
    if (text === '') return null;
    const { network, description } = map.value;
    const sizes = network.nodes[description.size.column];
    const all = Array.from(whole.map.nodes).filter((v) => labels[v].toLowerCase().includes(text));
    const size = (v: number): number => (ArrayBuffer.isView(sizes) ? Number(sizes[v]) : 0);
    return { all: all.length, first: all.sort((a, b) => size(b) - size(a) || a - b).slice(0, MOST) };
  });
  const done = (): void => {
    typed.value = '';
  };
  return (
    <search>
      <label>
        Find
        <input
          type="search"
          value={typed}
          onInput={(event) => (typed.value = event.currentTarget.value)}
          onKeyDown={(event) => {
            const [first] = found.value?.first ?? [];
            if (event.key !== 'Enter' || first === undefined) return;
            goTo(first);
            done();
          }}
        />
      </label>
      {found.value && (
        <>
          <p class="soft" role="status">
            {found.value.all === 0 ? 'Nothing is called so.' : `${found.value.all} found`}
            {found.value.all > MOST ? `, the ${MOST} largest:` : ''}
          </p>
          <NodeList nodes={found.value.first} gone={done} />
        </>
      )}
    </search>
  );
}
