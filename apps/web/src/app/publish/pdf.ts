import { textsOfScene, type Scene } from '@pebble/core';
import type { PdfOptions } from '@pebble/core/pdf';
import { fontFile, loadLetters } from './letters';

/** The figure as PDF. The code that writes it, and the fonts, are fetched when they are needed first. */
export async function pdfOf(scene: Scene, options: Omit<PdfOptions, 'letters' | 'readFont'>): Promise<Blob> {
  const { paintPdf } = await import('@pebble/core/pdf');
  const caption = { text: options.caption ?? '', face: 'serif' as const };
  const letters = await loadLetters([...textsOfScene(scene), caption]);
  const bytes = await paintPdf(scene, { ...options, letters, readFont: fontFile });
  return new Blob([bytes as BlobPart], { type: 'application/pdf' });
}
