import type { DemoEmail } from './emails';

/** Who wrote to whom, as a finished network: addresses, what is known of them, and how many emails went from one to another. */
export interface MailNetwork {
  readonly nodes: readonly { readonly id: string; readonly name: string; readonly office: string }[];
  readonly ties: readonly { readonly source: string; readonly target: string; readonly weight: number }[];
}

/** Receivers of copies count as receivers. Nodes and ties stand in the order in which the emails name them. */
export function mailNetwork(emails: readonly DemoEmail[]): MailNetwork {
  const names = new Map<string, string>();
  const weight = new Map<string, number>();
  for (const { from, to, cc } of emails) {
    names.set(from.address, from.name);
    for (const receiver of [...to, ...cc]) {
      if (!names.has(receiver)) names.set(receiver, '');
      const pair = `${from.address} ${receiver}`;
      weight.set(pair, (weight.get(pair) ?? 0) + 1);
    }
  }
  return {
    nodes: [...names].map(([id, name]) => ({ id, name: name || id, office: id.split('@')[1].split('.')[0] })),
    ties: [...weight].map(([pair, count]) => {
      const [source, target] = pair.split(' ');
      return { source, target, weight: count };
    }),
  };
}

/** GML (Himsolt, 1997): ids are numbers, so the addresses are labels. */
export function networkAsGml({ nodes, ties }: MailNetwork): string {
  const number = new Map(nodes.map(({ id }, i) => [id, i]));
  const node = nodes.map(({ id, office }, i) => `  node [ id ${i} label "${id}" office "${office}" ]\n`);
  const edge = ties.map(
    ({ source, target, weight }) =>
      `  edge [ source ${number.get(source)} target ${number.get(target)} weight ${weight} ]\n`,
  );
  return `graph [\n  directed 1\n${node.join('')}${edge.join('')}]\n`;
}

/** JSON Graph Format, version 2. */
export function networkAsJsonGraph({ nodes, ties }: MailNetwork): string {
  const graph = {
    directed: true,
    nodes: Object.fromEntries(
      nodes.map(({ id, name, office }) => [id, { label: name, metadata: { office } }]),
    ),
    edges: ties.map(({ source, target, weight }) => ({ source, target, metadata: { weight } })),
  };
  return `${JSON.stringify({ graph }, null, 1)}\n`;
}

/** The plain subset of DOT. */
export function networkAsDot({ nodes, ties }: MailNetwork): string {
  const node = nodes.map(({ id, name, office }) => `  "${id}" [label="${name}", office="${office}"];\n`);
  const edge = ties.map(({ source, target, weight }) => `  "${source}" -> "${target}" [weight=${weight}];\n`);
  return `digraph emails {\n${node.join('')}${edge.join('')}}\n`;
}

/** An adjacency list: a sender and its receivers, apart by spaces; without weights. */
export function networkAsList({ nodes, ties }: MailNetwork): string {
  const receivers = new Map(nodes.map(({ id }) => [id, [] as string[]]));
  for (const { source, target } of ties) receivers.get(source)!.push(target);
  return [...receivers].map(([id, others]) => `${[id, ...others].join(' ')}\n`).join('');
}

/** An adjacency matrix of counts, as comma-separated values. */
export function networkAsMatrix({ nodes, ties }: MailNetwork): string {
  const cells = new Map(ties.map(({ source, target, weight }) => [`${source} ${target}`, weight]));
  const row = ({ id }: { id: string }): string =>
    [id, ...nodes.map((other) => cells.get(`${id} ${other.id}`) ?? 0)].join(',');
  return `${['', ...nodes.map(({ id }) => id)].join(',')}\n${nodes.map((node) => `${row(node)}\n`).join('')}`;
}
