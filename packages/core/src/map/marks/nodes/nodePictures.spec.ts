import { defaultMap, type MapDescription } from '@pebble/contract';
import { rowOfNodes } from '../../../testing/rowOfNodes';
import { captionPhrases, captionText } from '../../description/caption';
import { pictureKey, unusedPictures } from './pictureNames';
import { paintSvg } from '../../paint/paintSvg';
import type { Scene } from '../../scene/scene';

const image = 'data:image/png;base64,AAAA';
const names = ['Lamp_Planner', 'nightbus14', '#LampsOut', 'ü'];
const pictures = [
  { name: 'lamp_planner', image },
  { name: 'lampsout', image: `${image}BBBB` },
  { name: 'nobody', image },
];

const draw = (shape: Partial<MapDescription['shape']>, scale = 3): Scene =>
  rowOfNodes(names, shape, { scale, pictures });

describe('pictures of nodes', () => {
  it('belong to the node of their name, whatever its capitals and the sign before it', () => {
    expect(['Ann', ' ann ', '@ann', '#ann'].map(pictureKey)).toEqual(['ann', 'ann', 'ann', 'ann']);
    // The same letter as one sign and as two.
    expect(pictureKey('u\u0308')).toBe(pictureKey('ü'));
    const marks = draw({ pictures: true }).pictures;
    expect(marks.map(({ image: one }) => one).sort()).toEqual([image, `${image}BBBB`]);
    expect(unusedPictures(names, pictures)).toEqual(['nobody']);
  });

  it('are shown where it is asked for, not in pies, and not where nodes are small', () => {
    expect(draw({}).pictures).toEqual([]);
    expect(draw({ pictures: true, pies: true }).pictures).toEqual([]);
    expect(draw({ pictures: true }, 0.2).pictures).toEqual([]);
  });

  it('leave a rim in the colour of the node, and take the place of its letters', () => {
    const scene = draw({ pictures: true, letters: 'initials' });
    const radius = scene.discs[0].discs[2];
    expect(scene.pictures[0].radius).toBeLessThan(radius);
    expect(scene.texts.map(({ text }) => text).sort()).toEqual(['N', 'Ü']);
  });

  it('stand in the figure, each cut to the shape of its node', () => {
    const svg = paintSvg(draw({ pictures: true }));
    expect(svg.match(/<image /g)).toHaveLength(2);
    expect(svg).toContain('clip-path="url(#picture-0)"');
    expect(svg).toContain(`xlink:href="${image}"`);
  });

  it('are named in the caption', () => {
    const description = { ...defaultMap, shape: { ...defaultMap.shape, pictures: true } };
    const none = { nodes: 0, edges: 0 };
    const text = captionText(
      captionPhrases({
        description,
        weave: null,
        directed: true,
        moved: 0,
        shown: { nodes: 4, edges: 0 },
        hidden: none,
      }),
    );
    expect(text).toContain('Pictures: of nodes that have one.');
  });
});
