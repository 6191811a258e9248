import { join } from 'node:path';
import pdfmake from 'pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';

// The fonts lie in the package; nothing is fetched, and a document can name no file of this machine.
const FONTS = join(require.resolve('pdfmake/package.json'), '..', 'build', 'fonts', 'Roboto');
const font = (name: string) => join(FONTS, `Roboto-${name}.ttf`);

pdfmake.setFonts({
  Roboto: {
    normal: font('Regular'),
    bold: font('Medium'),
    italics: font('Italic'),
    bolditalics: font('MediumItalic'),
  },
});
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => path.startsWith(FONTS));

/** Lays a document out as PDF. */
export async function toPdf(document: TDocumentDefinitions): Promise<Buffer> {
  return pdfmake.createPdf(document).getBuffer();
}
