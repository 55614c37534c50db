import { inject, Injectable, signal } from '@angular/core';
import type { NodePicture } from '@pebble/contract';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../api/api';

/** The pictures of the open study's nodes. */
@Injectable({ providedIn: 'root' })
export class NodePictures {
  private readonly api = inject(Api);
  readonly list = signal<readonly NodePicture[]>([]);
  private study: string | null = null;

  /** Reads those of a study, once. */
  async open(study: string): Promise<void> {
    if (this.study !== study) await this.read(study);
  }

  private async read(study: string): Promise<void> {
    this.study = study;
    this.list.set([]);
    try {
      const pictures = await firstValueFrom(this.api.pictures({ study }));
      if (this.study === study) this.list.set(pictures);
    } catch {
      // The map goes on without; it is tried again when it is next opened.
      if (this.study === study) this.study = null;
    }
  }

  /** Keeps pictures for the nodes of their names. */
  async add(study: string, pictures: readonly NodePicture[]): Promise<void> {
    const bytes = new TextEncoder().encode(JSON.stringify(pictures));
    const { id } = await firstValueFrom(this.api.sendBytes({ study }, { bytes: bytes.buffer }));
    await this.step(this.api.step(study, 'add-pictures', { upload: id }));
    await this.read(study);
  }

  async remove(study: string): Promise<void> {
    await this.step(this.api.step(study, 'remove-pictures', {}));
    await this.read(study);
  }

  private async step(asked: ReturnType<Api['step']>): Promise<void> {
    const { state, error } = await firstValueFrom(asked);
    if (state !== 'done') throw new Error(error ?? 'It was cancelled.');
  }
}
