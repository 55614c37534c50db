import { Random } from '@pebble/core';
import { DAYS, FIRST_DAY } from './clock';
import { MAIL_ANSWERS, MAIL_OPENINGS, MAIL_SUBJECTS } from './mailTexts';

/** A person of the correspondence; a few write from two addresses. */
export interface DemoCorrespondent {
  readonly name: string;
  readonly addresses: readonly string[];
  readonly office: Office;
}

type Office = 'council' | 'engineers' | 'residents' | 'press';

export interface DemoEmail {
  readonly id: string;
  readonly from: { readonly name: string; readonly address: string };
  readonly to: readonly string[];
  readonly cc: readonly string[];
  readonly time: number;
  readonly subject: string;
  readonly text: string;
  /** The email that it answers. */
  readonly answers: DemoEmail | null;
  readonly toList: boolean;
}

/** What was planted in the correspondence. */
export interface DemoMailTruth {
  readonly emails: number;
  readonly addresses: number;
  readonly people: number;
  readonly threads: number;
  /** Pairs of email and receiving address. */
  readonly sent: number;
  readonly copies: number;
  /** Different ordered pairs of sender and receiver, by to or cc. */
  readonly pairs: number;
}

const OFFICES: readonly { office: Office; people: number; domain: string }[] = [
  { office: 'council', people: 26, domain: 'council.sallowmere.example' },
  { office: 'engineers', people: 14, domain: 'lightworks.example' },
  { office: 'residents', people: 38, domain: 'estuarymail.example' },
  { office: 'press', people: 6, domain: 'harbourpost.example' },
];
const LIST = 'lamp-talk@lists.sallowmere.example';
/** Whom each office writes to, by weight: its own, and the others. */
const TOWARDS: Readonly<Record<Office, Readonly<Record<Office, number>>>> = {
  council: { council: 8, engineers: 4, residents: 3, press: 1 },
  engineers: { council: 5, engineers: 7, residents: 1, press: 0 },
  residents: { council: 5, engineers: 1, residents: 6, press: 1 },
  press: { council: 5, engineers: 2, residents: 3, press: 2 },
};
const FIRST =
  'Ada Bram Cleo Dov Edda Finn Greta Hale Ines Jory Kit Lena Milo Nell Otis Petra Quin Rhea Sten Tove'.split(
    ' ',
  );
const LAST =
  'Aldersey Brindle Carrow Dunmere Eddowes Fairlea Gantry Holm Ivesey Jarrow Kettleby Larkfield'.split(' ');

/** The correspondence about the lamps: inboxes of the council and a mailing list. The same seed gives the same emails. */
export function makeEmails(count = 1500, seed = 20260301): { emails: DemoEmail[]; truth: DemoMailTruth } {
  const chance = new Random(seed);
  const people = makePeople(chance);
  const emails: DemoEmail[] = [];
  const times = Array.from(
    { length: count },
    () => FIRST_DAY + Math.floor(chance.real() * DAYS * 86_400) * 1000,
  ).sort((a, b) => a - b);
  times.forEach((time, i) => {
    const open = emails.slice(-60).filter((email) => time - email.time < 6 * 86_400_000);
    const before = open.length > 0 && chance.chance(0.62) ? chance.pick(open) : null;
    emails.push(before ? answer(before, people, time, i, chance) : opening(people, time, i, chance));
  });
  return { emails, truth: tellTruth(emails, people) };
}

function makePeople(chance: Random): DemoCorrespondent[] {
  const names = chance.shuffle(FIRST.flatMap((first) => LAST.map((last) => `${first} ${last}`)));
  return OFFICES.flatMap(({ office, people, domain }) =>
    Array.from({ length: people }, (_, i) => {
      const name = names.pop()!;
      const local = name.toLowerCase().replace(' ', '.');
      // Every thirteenth resident writes from home and from work.
      const second = office === 'residents' && i % 13 === 0 ? [`${local}@nightshift.example`] : [];
      return { name, office, addresses: [`${local}@${domain}`, ...second] };
    }),
  );
}

function opening(people: readonly DemoCorrespondent[], time: number, i: number, chance: Random): DemoEmail {
  const sender = chance.pick(people);
  const toList = sender.office !== 'engineers' && chance.chance(0.25);
  const receivers = toList ? [LIST] : pickReceivers(sender, people, 1 + chance.below(2), chance);
  const copies =
    toList || chance.chance(0.6) ? [] : pickReceivers(sender, people, 1 + chance.below(3), chance);
  return {
    id: `${i}.${time / 1000}@sallowmere.example`,
    from: { name: sender.name, address: chance.pick(sender.addresses) },
    to: receivers,
    cc: copies.filter((address) => !receivers.includes(address)),
    time,
    subject: chance.pick(MAIL_SUBJECTS),
    text: `${chance.pick(MAIL_OPENINGS[sender.office])}\n\n${sender.name.split(' ')[0]}`,
    answers: null,
    toList,
  };
}

function answer(
  before: DemoEmail,
  people: readonly DemoCorrespondent[],
  time: number,
  i: number,
  chance: Random,
): DemoEmail {
  const isIn = (person: DemoCorrespondent): boolean =>
    person.addresses.some((address) => before.to.includes(address) || before.cc.includes(address));
  const others = people.filter((person) => person.name !== before.from.name);
  const addressed = others.filter(isIn);
  const sender = before.toList || addressed.length === 0 ? chance.pick(others) : chance.pick(addressed);
  const address = chance.pick(sender.addresses);
  const everybody = chance.chance(0.5);
  const cc = everybody
    ? [...before.to, ...before.cc].filter(
        (one) => one !== LIST && !sender.addresses.includes(one) && one !== before.from.address,
      )
    : [];
  return {
    id: `${i}.${time / 1000}@sallowmere.example`,
    from: { name: sender.name, address },
    to: before.toList ? [LIST] : [before.from.address],
    cc: before.toList ? [] : [...new Set(cc)],
    time,
    subject: before.subject.startsWith('Re: ') ? before.subject : `Re: ${before.subject}`,
    text: `${chance.pick(MAIL_ANSWERS[sender.office])}\n\n${sender.name.split(' ')[0]}`,
    answers: before,
    toList: before.toList,
  };
}

function pickReceivers(
  sender: DemoCorrespondent,
  people: readonly DemoCorrespondent[],
  count: number,
  chance: Random,
): string[] {
  const weights = TOWARDS[sender.office];
  const chosen = new Set<string>();
  for (let tries = 0; chosen.size < count && tries < 50; tries++) {
    const person = chance.pick(people);
    if (person !== sender && chance.below(8) < weights[person.office]) chosen.add(person.addresses[0]);
  }
  return [...chosen];
}

function tellTruth(emails: readonly DemoEmail[], people: readonly DemoCorrespondent[]): DemoMailTruth {
  const addresses = new Set<string>();
  const pairs = new Set<string>();
  let sent = 0;
  let copies = 0;
  for (const { from, to, cc } of emails) {
    addresses.add(from.address);
    sent += to.length;
    copies += cc.length;
    for (const receiver of [...to, ...cc]) {
      addresses.add(receiver);
      pairs.add(`${from.address} ${receiver}`);
    }
  }
  return {
    emails: emails.length,
    addresses: addresses.size,
    people: people.length,
    threads: emails.filter(({ answers }) => answers === null).length,
    sent,
    copies,
    pairs: pairs.size,
  };
}
