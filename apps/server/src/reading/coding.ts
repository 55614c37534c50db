import {
  AGREED,
  type Agreement,
  type AgreementRequest,
  type CodeAgreement,
  type Queue,
  type QueueQuery,
} from '@pebble/contract';
import { cohenKappa, krippendorffAlpha, resampledInterval, type CodedUnit } from '@pebble/core';
import { codingsOfSample, messagesOfSample, readCodes } from '../storage/codings';
import { readMessagesById } from '../storage/messages';
import type { Store } from '../storage/open';

/** Messages of a sample with what a coder gave them. */
export async function readQueue(
  store: Store,
  { sample, query: { coder, offset, limit } }: { readonly sample: number; readonly query: QueueQuery },
): Promise<Queue> {
  const messages = messagesOfSample(store, sample);
  const own = codingsOfSample(store, sample).get(coder) ?? new Map<number, readonly number[]>();
  const page = messages.slice(offset, offset + limit);
  const read = new Map((await readMessagesById(store, page)).map((message) => [message.id, message]));
  const next = messages.findIndex((message) => !own.has(message));
  return {
    total: messages.length,
    coded: messages.filter((message) => own.has(message)).length,
    next: next < 0 ? null : next,
    offset,
    entries: page.flatMap((id, i) => {
      const message = read.get(id);
      const codes = own.get(id);
      // A source that was taken out has its messages with it, until it is back.
      return message ? [{ place: offset + i, message, codes: codes ? [...codes] : null }] : [];
    }),
  };
}

/** How far coders agree on what at least two of them coded, code by code. */
export async function measureAgreement(
  store: Store,
  { sample, coders, seed, runs }: Pick<AgreementRequest, 'sample' | 'coders' | 'seed' | 'runs'>,
): Promise<Omit<Agreement, 'disagreements'> & { readonly differing: readonly number[] }> {
  const codings = codingsOfSample(store, sample);
  const by = coders.map((coder) => codings.get(coder) ?? new Map<number, readonly number[]>());
  const messages = messagesOfSample(store, sample).filter(
    (message) => by.filter((own) => own.has(message)).length >= 2,
  );
  const differing = messages.filter(
    (message) => new Set(by.flatMap((own) => own.get(message)?.join() ?? [])).size > 1,
  );
  const codes = (await readCodes(store)).map(({ id, name }): CodeAgreement => {
    const units = messages.map((message): CodedUnit =>
      by.map((own) => {
        const codesOf = own.get(message);
        return codesOf ? Number(codesOf.includes(id)) : null;
      }),
    );
    const interval = resampledInterval(units, krippendorffAlpha, seed, runs);
    return {
      code: id,
      name,
      given: coders.map((_, c) => units.filter((unit) => unit[c] === 1).length),
      all: units.filter((unit) => unit.every((value) => value !== 0)).length,
      kappa: coders.length === 2 ? told(cohenKappa(units)) : null,
      alpha: told(krippendorffAlpha(units)),
      interval: interval && { low: interval[0], high: interval[1] },
    };
  });
  return { coders, messages: messages.length, alike: messages.length - differing.length, codes, differing };
}

/** JSON knows no NaN. */
const told = (value: number): number | null => (Number.isNaN(value) ? null : value);

/** The same, with what coders disagree on. */
export async function readAgreement(store: Store, asked: AgreementRequest): Promise<Agreement> {
  const { differing, ...agreement } = await measureAgreement(store, asked);
  const codings = codingsOfSample(store, asked.sample);
  const agreed = codings.get(AGREED) ?? new Map<number, readonly number[]>();
  const page = differing.slice(asked.offset, asked.offset + asked.limit);
  return {
    ...agreement,
    disagreements: {
      total: differing.length,
      settled: differing.filter((message) => agreed.has(message)).length,
      offset: asked.offset,
      entries: (await readMessagesById(store, page)).map((message) => ({
        message,
        by: asked.coders.flatMap((coder) => {
          const codes = codings.get(coder)?.get(message.id);
          return codes ? [{ coder, codes: [...codes] }] : [];
        }),
        agreed: agreed.has(message.id) ? [...agreed.get(message.id)!] : null,
      })),
    },
  };
}
