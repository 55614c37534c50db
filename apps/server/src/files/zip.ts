import { buffer } from 'node:stream/consumers';
import { ZipFile } from 'yazl';

/** Files as one zip; the same files give the same bytes. @param made the time that they bear, RFC 3339 */
export async function zipOf(
  files: readonly { readonly place: string; readonly content: Uint8Array }[],
  made: string,
): Promise<Uint8Array> {
  const zip = new ZipFile();
  const mtime = new Date(made);
  for (const { place, content } of files)
    zip.addBuffer(Buffer.from(content.buffer, content.byteOffset, content.byteLength), place, { mtime });
  zip.end();
  return buffer(zip.outputStream);
}
