import type { PermissionReport } from '@goodword/core/contract';
import { escapeHtml as e } from '@goodword/core/letter';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { moment, evidenceSections, type EvidenceItem } from './sections';

const STYLE = `body{font:14px/1.45 system-ui,sans-serif;color:#17252B;margin:2rem auto;max-width:52rem;padding:0 1rem}
h1{font-size:1.5rem;margin:0}h2{font-size:1.1rem;border-bottom:2px solid #17252B;margin:1.6rem 0 .4rem}
article{border-bottom:1px solid #D3DAD6;padding:.5rem 0;break-inside:avoid}article p{margin:.15rem 0;overflow-wrap:anywhere}
small{color:#51626A}@page{margin:18mm}`;

const title = (report: PermissionReport) =>
  `What ${report.supporter.erasedAt ? 'somebody since erased' : report.supporter.name} agreed to`;

function lead({ organization, supporter, madeAt }: PermissionReport): string[] {
  const addresses = supporter.addresses.map(({ shown, onHold }) => `${shown}${onHold ? ' (on hold)' : ''}`);
  return [
    `${organization}, supporter ${supporter.id}, place: ${supporter.place}. Made ${moment(madeAt)}.`,
    addresses.length > 0 ? `Addresses: ${addresses.join(', ')}.` : 'No address on file.',
    ...(supporter.erasedAt
      ? [`Erased ${moment(supporter.erasedAt)}: names, addresses and words are gone, dates and states stay.`]
      : []),
  ];
}

/** One person's file as a page to read and print: only what the report says, every word escaped. */
export function filePage(report: PermissionReport): string {
  const article = ({ head, lines, small }: EvidenceItem) =>
    `<article><p><strong>${e(head)}</strong></p>${lines.map((line) => `<p>${e(line)}</p>`).join('')}${
      small.length > 0 ? `<p><small>${small.map(e).join('; ')}</small></p>` : ''
    }</article>`;
  const sections = evidenceSections(report).map(
    (one) => `<h2>${e(one.title)}</h2>${one.items.map(article).join('') || `<p>${e(one.none)}</p>`}`,
  );
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${e(title(report))}</title><style>${STYLE}</style></head><body>
    <h1>${e(title(report))}</h1>${lead(report)
      .map((line) => `<p>${e(line)}</p>`)
      .join('')}${sections.join('')}</body></html>`;
}

/** The same on paper. */
export function fileDocument(report: PermissionReport): TDocumentDefinitions {
  return {
    pageSize: 'A4',
    pageMargins: [50, 50, 50, 56],
    info: { title: title(report) },
    defaultStyle: { fontSize: 9.5, lineHeight: 1.2 },
    footer: (page, pages) => ({
      text: `${title(report)}, ${page} of ${pages}`,
      alignment: 'center',
      fontSize: 8,
      margin: [0, 16, 0, 0],
    }),
    content: [
      { text: title(report), fontSize: 16, bold: true, margin: [0, 0, 0, 6] },
      ...lead(report).map((text) => ({ text })),
      ...evidenceSections(report).flatMap((one) => [
        {
          text: one.title,
          fontSize: 12,
          bold: true,
          margin: [0, 14, 0, 4] as [number, number, number, number],
        },
        ...(one.items.length === 0 ? [{ text: one.none }] : []),
        ...one.items.map(({ head, lines, small }) => ({
          stack: [
            { text: head, bold: true },
            ...lines.map((text) => ({ text })),
            { text: small.join('; '), fontSize: 8, color: '#51626A' },
          ],
          margin: [0, 0, 0, 6] as [number, number, number, number],
          unbreakable: lines.join('').length < 1500,
        })),
      ]),
    ],
  };
}
