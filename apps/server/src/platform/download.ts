import type { Response } from 'express';

/** A file always as a download, and never shown as what it says it is. */
export function sendAsDownload(response: Response, { name, bytes }: { name: string; bytes: Buffer }): void {
  response.attachment(name).type('application/octet-stream').send(bytes);
}
