import { defaultMap, type StepKind } from '@pebble/contract';
import { lookOf } from '@pebble/core';
import { networkSteps, PLATE } from '../../apps/server/src/testing/networkSteps';
import { ADDRESSES, type Prepared } from './prepared';

/** Parameters for every kind of step on a prepared study; collecting is killed by itself, and so is the archive. */
export const PARAMETERS: Readonly<
  Record<
    Exclude<
      StepKind,
      | 'collect-source'
      | 'create-study'
      | 'rename-study'
      | 'delete-study'
      | 'restore-study'
      | 'archive-study'
      | 'open-study'
      // It is killed like import-network: it stages the same files.
      | 'open-package'
    >,
    (of: Prepared) => object
  >
> = {
  'import-source': ({ sent }) => ({ ...sent.posts, name: 'More posts' }),
  'import-network': ({ sent }) => ({ ...sent.ties, name: 'Ties' }),
  'add-node-details': ({ network, sent }) => ({ ...sent.details, network }),
  'add-groups': ({ network, sent }) => ({ ...sent.groups, network, column: 'office' }),
  'detect-languages': ({ source }) => ({ source }),
  'set-language': ({ message }) => ({ message, language: 'fr' }),
  'mark-message': ({ message }) => ({ message, starred: true, note: 'odd' }),
  'save-filter': () => ({ name: 'Quay', filter: { text: 'quay' } }),
  'forget-filter': ({ filter }) => ({ id: filter, name: 'Lamps' }),
  'edit-codebook': ({ code }) => ({ codes: [{ id: code, name: 'request', colour: '#D55E00' }] }),
  'import-codes': ({ sent }) => ({ upload: sent.codes.upload, file: sent.codes.file }),
  'draw-sample': () => ({ name: 'More', from: { what: 'filter', filter: {} }, most: 30 }),
  'forget-sample': ({ sample }) => ({ sample, name: 'Sample' }),
  'code-message': ({ message, code }) => ({ message, coder: 'ann', codes: [code] }),
  'measure-agreement': ({ sample }) => ({ sample, coders: ['ann', 'ben'] }),
  'share-of-code': ({ network, code }) => ({ network, code }),
  'mark-moment': () => ({ time: 0, name: 'Beginning' }),
  'forget-moment': ({ moment }) => ({ id: moment, name: 'Fire' }),
  'remove-source': ({ source }) => ({ source, name: 'Posts' }),
  'restore-source': ({ removedSource }) => ({ source: removedSource, name: 'Removed' }),
  'remove-for-good': ({ deletedNetwork, removedSource, deletedPlate }) => ({
    networks: [deletedNetwork],
    sources: [removedSource],
    plates: [deletedPlate],
  }),
  'forget-account': ({ account }) => ({ account }),
  'duplicate-study': () => ({ name: 'Second' }),
  'save-study': () => ({}),
  'find-names': () => ({ by: 'library' }),
  'score-messages': () => ({ scorer: 'tone' }),
  tidy: () => ({
    sort: 'hashtag',
    decisions: [{ key: 'sallowmere', verdict: { verdict: 'drop' } }],
  }),
  'take-back-tidy': ({ decisions }) => ({ decisions }),
  'categorise-by-rule': () => ({
    sort: 'account',
    field: 'label',
    contains: 'a',
    category: 'letter',
    value: 'a',
  }),
  'categorise-by-table': ({ sent }) => ({ ...sent.table, sort: 'account' }),
  weave: () => ({ name: 'Woven', weave: ADDRESSES }),
  'weave-slices': () => ({ name: 'Sliced', weave: ADDRESSES, by: 'week' }),
  ...networkSteps(({ network, slicedNetwork, deletedNetwork }: Prepared, kind) =>
    kind === 'share-arrangement' || kind === 'follow-groups'
      ? slicedNetwork
      : kind === 'restore-network'
        ? deletedNetwork
        : network,
  ),
  'keep-plate': ({ slicedNetwork: network }) => ({ ...PLATE, network }),
  'name-plate': ({ plate }) => ({ plate, title: 'Second', note: '' }),
  'duplicate-plate': ({ plate }) => ({ plate, title: 'Second' }),
  'renew-plate': ({ plate }) => ({ plate, title: 'First' }),
  'order-plates': ({ plate }) => ({ plates: [plate] }),
  'choose-cover': ({ plate }) => ({ plate }),
  'delete-plate': ({ plate }) => ({ plate, title: 'First' }),
  'restore-plate': ({ deletedPlate: plate }) => ({ plate, title: 'First' }),
  'name-people': () => ({ form: 'words', keep: ['ann'] }),
  'forget-pseudonyms': () => ({}),
  'keep-look': () => ({ name: 'Journal', look: lookOf(defaultMap) }),
  'forget-look': () => ({ name: 'Kept' }),
  'add-pictures': ({ pictures }) => ({ upload: pictures }),
  'remove-pictures': () => ({}),
  'export-data': () => ({ what: 'decisions', format: 'csv', filter: {} }),
  'export-run': ({ routineRun }) => ({ routineRun, files: 1 }),
};
