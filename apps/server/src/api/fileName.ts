import { FileName } from '@pebble/contract';
import { ApiError } from './problems';

/** The name of a file that was sent, as it is written in a header; null where it has none. Throws ZodError. */
export function fileName(header: string | undefined): string | null {
  if (header === undefined) return null;
  try {
    return FileName.parse(decodeURIComponent(header));
  } catch (error) {
    if (!(error instanceof URIError)) throw error;
    throw new ApiError(400, 'The request is not right', 'The name of the file is not percent-encoded.', {
      field: 'x-file-name',
    });
  }
}
