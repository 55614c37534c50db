/** A worker that paints rows of ties. */
export function pictureWorker(): Worker {
  return new Worker(new URL('./tie-picture.worker', import.meta.url), { type: 'module' });
}
