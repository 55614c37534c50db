import { SmallPicture } from '../map';
import { PlateList, PlateMap } from '../plates';
import { Bytes, routeTable } from './route';

export const plateRoutes = routeTable({
  plates: {
    method: 'get',
    path: '/studies/{study}/plates',
    summary: 'The kept states of maps, in their order, each with whether it would look the same today.',
    answer: PlateList,
  },
  plateMap: {
    method: 'get',
    path: '/studies/{study}/plates/{plate}',
    summary: 'How the map of a plate is drawn, what part of it is seen, and what is selected.',
    answer: PlateMap,
  },
  platePositions: {
    method: 'get',
    path: '/studies/{study}/plates/{plate}/positions',
    summary: 'x and y of every node of a plate as 32-bit floats, little-endian.',
    answer: new Bytes(['application/octet-stream']),
  },
  cover: {
    method: 'get',
    path: '/studies/{study}/cover',
    summary:
      'The picture that stands for a study: its cover plate, or the map of its newest network; null where there is neither.',
    answer: SmallPicture.nullable(),
  },
});
