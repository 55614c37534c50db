import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { NodeTable, Upload } from '@pebble/contract';
import { of } from 'rxjs';
import { choose, host, text } from '../../testing/dom';
import { examplePreview, exampleReading } from '../../testing/examples';
import { Api } from '../api/api';
import { NodeTableChoice } from './node-table-choice';

const nodeReading = exampleReading({
  material: 'nodes',
  columns: [
    { name: 'id', role: 'node' },
    { name: 'label', role: 'authorName' },
  ],
});
const ties = (change: Partial<Upload['preview']> = {}): Upload => ({
  id: 'u1',
  preview: examplePreview({ file: 'ties.csv', reading: exampleReading({ material: 'network' }), ...change }),
});
const nodesFile: Upload = {
  id: 'u2',
  preview: examplePreview({ file: 'nodes.csv', reading: nodeReading, outcome: 'It tells of 4 nodes.' }),
};

describe('NodeTableChoice', () => {
  const previewAgain = jest.fn();
  let fixture: ComponentFixture<NodeTableChoice>;
  let chosen: (NodeTable | null)[];
  const show = async (upload: Upload, others: Upload[] = []): Promise<void> => {
    TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: { previewAgain } }] });
    fixture = TestBed.createComponent(NodeTableChoice);
    fixture.componentRef.setInput('study', 's1');
    fixture.componentRef.setInput('ties', upload);
    fixture.componentRef.setInput('others', others);
    chosen = [];
    fixture.componentInstance.nodesChosen.subscribe((one) => chosen.push(one));
    await fixture.whenStable();
  };
  const select = () => host(fixture).querySelector('select');

  it('is not there where no table could hold the nodes', async () => {
    await show(ties());
    expect(select()).toBeNull();
    expect(chosen.at(-1)).toBeNull();
  });

  it('takes a waiting file of nodes as it was corrected, without asking again', async () => {
    await show(ties(), [nodesFile]);
    expect(text(fixture)).toContain(
      'Ties call a node by its “id”; “label” is its label. It tells of 4 nodes.',
    );
    expect(chosen.at(-1)).toEqual({ upload: 'u2', file: 'nodes.csv', reading: nodeReading });
    expect(previewAgain).not.toHaveBeenCalled();
  });

  it('proposes the sheet that seems to hold nodes, and can be told otherwise', async () => {
    previewAgain.mockReturnValue(of(examplePreview({ file: 'quay.xlsx', reading: nodeReading })));
    const reading = exampleReading({ material: 'network', format: 'xlsx', sheet: 'Ties' });
    await show(
      ties({ file: 'quay.xlsx', sheets: ['People', 'Ties', 'Notes'], nodeSheet: 'People', reading }),
    );
    expect(previewAgain).toHaveBeenLastCalledWith(
      { study: 's1', upload: 'u1' },
      { file: 'quay.xlsx', reading: { material: 'nodes', sheet: 'People' } },
    );
    expect(chosen.at(-1)).toMatchObject({ upload: 'u1', file: 'quay.xlsx' });
    choose(select()!, 'the ends of the ties');
    await fixture.whenStable();
    expect(chosen.at(-1)).toBeNull();
  });

  it('says when no column of the chosen table can be the node', async () => {
    previewAgain.mockReturnValue(of(examplePreview({ missing: ['node'] })));
    await show(ties(), [{ ...nodesFile, preview: examplePreview({ file: 'posts.csv' }) }]);
    choose(select()!, 'posts.csv');
    await fixture.whenStable();
    expect(text(fixture)).toContain('In posts.csv no column could be taken as the node.');
    expect(chosen.at(-1)).toBeNull();
  });
});
