import { TestBed } from '@angular/core/testing';
import { host } from '../../testing/dom';
import { inMillimetres, inPixels } from './figure-sizes';
import { OwnSize, type Size } from './own-size';

describe('OwnSize', () => {
  async function fields(size: Size) {
    const fixture = TestBed.createComponent(OwnSize);
    fixture.componentRef.setInput('size', size);
    const changes: Partial<Size>[] = [];
    fixture.componentInstance.changed.subscribe((change) => changes.push(change));
    await fixture.whenStable();
    const [width, height, resolution] = host(fixture).querySelectorAll('input');
    const unit = host(fixture).querySelector('select')!;
    const write = async (field: HTMLInputElement, value: string): Promise<void> => {
      field.value = value;
      field.dispatchEvent(new Event('input'));
      await fixture.whenStable();
    };
    const inMm = async (): Promise<void> => {
      unit.value = 'mm';
      unit.dispatchEvent(new Event('change'));
      await fixture.whenStable();
    };
    return { changes, width, height, resolution, write, inMm };
  }

  it('gives what is written in pixels, and no height where its field is emptied', async () => {
    const { changes, width, height, write } = await fields({ width: 1800, height: 900, resolution: 300 });
    expect([width.value, height.value]).toEqual(['1800', '900']);
    await write(width, '2000');
    await write(height, '');
    await write(width, '-3');
    expect(changes).toEqual([{ width: 2000 }, { height: null }]);
  });

  it('shows and takes millimetres, which stay where the resolution is another', async () => {
    const { changes, width, height, resolution, write, inMm } = await fields({
      width: 1800,
      height: null,
      resolution: 300,
    });
    await inMm();
    expect([width.value, height.value]).toEqual(['152.4', '']);
    await write(width, '85');
    await write(resolution, '600');
    expect(changes).toEqual([{ width: 1004 }, { resolution: 600, width: 3600 }]);
  });

  it('turns lengths into pixels and back: an inch is 25.4 millimetres', () => {
    expect([inPixels(25.4, 300), inMillimetres(300, 300)]).toEqual([300, 25.4]);
    expect(inMillimetres(inPixels(178, 300), 300)).toBe(178);
  });
});
