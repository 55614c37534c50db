import { RASTER_FROM, tiesIn, type Scene } from '@pebble/core';
import { LargePicture } from './large-picture';

/** The pictures of a page that have so many ties that these are painted, one after the other. What is no longer wanted is ended. */
export class LargePictures {
  private readonly picture = new LargePicture();
  private turn = 0;

  /** @param done gets the address of each, null for those that need none */
  paint(
    scenes: readonly Scene[],
    ratio: number,
    done: (addresses: readonly (string | null)[]) => void,
    failed: (error: Error) => void,
  ): void {
    this.stop();
    const turn = this.turn;
    const addresses: (string | null)[] = [];
    const next = (): void => {
      if (turn !== this.turn) return;
      const scene = scenes[addresses.length];
      if (!scene) return done(addresses);
      const take = (address: string | null): void => {
        addresses.push(address);
        next();
      };
      if (hasManyTies(scene)) this.picture.paint(scene, ratio, take, failed);
      else take(null);
    };
    next();
  }

  stop(): void {
    this.turn++;
    this.picture.stop();
  }
}

/** Whether nobody could tell its ties apart. */
export function hasManyTies(scene: Scene): boolean {
  return tiesIn(scene) >= RASTER_FROM;
}

/** The pictures of a page; a figure of one map is its own only one. */
export function picturesOf(scene: Scene): readonly Scene[] {
  return scene.panels?.map((panel) => panel.scene) ?? [scene];
}

/** A page with its painted pictures. */
export function withPictures(scene: Scene, addresses: readonly (string | null)[]): Scene {
  if (!scene.panels) return scene;
  return { ...scene, panels: scene.panels.map((panel, i) => ({ ...panel, under: addresses[i] ?? null })) };
}
