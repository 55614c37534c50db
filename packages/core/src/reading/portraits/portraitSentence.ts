import type { PortraitBody } from '@pebble/contract';
import { counted, dayPhrase, formatCount, joinWith } from '../../words/sentence';

type Told = Pick<
  PortraitBody,
  | 'nodes'
  | 'messages'
  | 'authors'
  | 'first'
  | 'last'
  | 'unusual'
  | 'within'
  | 'out'
  | 'into'
  | 'addressed'
  | 'sure'
>;

interface Whole {
  /** What a node is: "account", "hashtag", "node". */
  readonly nodeWord: string;
  readonly nodes: number;
  readonly messages: number;
  readonly nameOf: (node: number) => string;
  readonly directed: boolean;
}

/** What a group is in one sentence, made of counts alone. */
export function portraitSentence(told: Told, whole: Whole): string {
  const { nodes, messages, within, out, into, addressed, sure } = told;
  const share = (part: number, all: number): string => `${Math.round((100 * part) / all)} %`;
  const parts = [
    `${counted(nodes, whole.nodeWord)}, ${share(nodes, whole.nodes)} of all`,
    ...(whole.messages > 0
      ? [`${counted(messages, 'message')}, ${share(messages, whole.messages)} of all${when(told)}`]
      : []),
  ];
  const touching = within + out + into;
  const closed =
    touching > 0
      ? ` ${share(within, touching)} of the weight of their ties stays within the group`
      : ' No tie touches them';
  const led =
    addressed.length > 0
      ? `; most ${whole.directed ? 'addressed is' : 'ties has'} ${whole.nameOf(addressed[0].node)} (${formatCount(addressed[0].value)})`
      : '';
  const known = sure === null ? '' : `; in further runs a node stayed with its group in ${share(sure, 1)}`;
  return `${parts.join('; ')}.${closed}${led}${known}.`;
}

function when({ first, last, unusual }: Told): string {
  if (first === null || last === null) return '';
  const days = [...unusual.slice(0, 3)].sort((a, b) => a - b).map((day) => dayPhrase(day, false));
  const busy = days.length > 0 ? `, unusually many on ${joinWith('and', days)}` : '';
  if (dayPhrase(first, true) === dayPhrase(last, true)) return `, on ${dayPhrase(first, true)}`;
  return `, from ${dayPhrase(first, true)} to ${dayPhrase(last, true)}${busy}`;
}
