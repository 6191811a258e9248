import type { PermissionReport } from '@goodword/core/contract';
import { escapeHtml } from '@goodword/core/letter';
import { CHANNEL_WORDS, ENTRY_WORDS, ROAD_WORDS, STATE_WORDS } from '@goodword/core/permission';

const STYLE = `body{font:14px/1.45 system-ui,sans-serif;color:#17252B;margin:2rem auto;max-width:52rem;padding:0 1rem}h1{font-size:1.5rem;margin:0}
h2{font-size:1.1rem;border-bottom:2px solid #17252B;margin:1.6rem 0 .4rem}table{border-collapse:collapse;width:100%}td,th{text-align:left;vertical-align:top;padding:.35rem .6rem .35rem 0;border-bottom:1px solid #D3DAD6}
article{border-bottom:1px solid #D3DAD6;padding:.6rem 0;break-inside:avoid}article p{margin:.15rem 0}small{color:#51626A}@page{margin:18mm}`;

const day = (at: string) => at.slice(0, 10);

/** One person's permission as a page to print: only what the report says, every word escaped. */
export function permissionPage(report: PermissionReport): string {
  const e = escapeHtml;
  const standings = report.standings.map(
    (one) =>
      `<tr><td>${CHANNEL_WORDS[one.channel]}</td><td>${e(one.scopeName)}</td><td>${STATE_WORDS[one.state]}${one.until ? ` until ${day(one.until)}` : ''}${one.pausedUntil ? `, paused until ${day(one.pausedUntil)}` : ''}</td><td>${one.entryId ? `entry ${one.entryId}` : ''}</td></tr>`,
  );
  const entries = report.entries.map((entry) => {
    const sent = entry.sentOnItsStrength.map(
      (one) => `${e(one.message)} (${CHANNEL_WORDS[one.channel].toLowerCase()}, ${one.at ? day(one.at) : 'under way'}, ${e(one.outcome)})`,
    );
    return `<article><p><strong>${day(entry.at)}: ${ENTRY_WORDS[entry.state]}, ${e(entry.scopeName)}, by ${CHANNEL_WORDS[entry.channel].toLowerCase()} at ${e(entry.address ?? 'every address')}</strong> <small>entry ${entry.id}${entry.takenBack ? ', taken back' : ''}</small></p>
      <p>${ROAD_WORDS[entry.how]}${entry.until ? `, until ${day(entry.until)}` : ''}${entry.words ? `: “${e(entry.words)}”` : ''}</p>
      <p><small>${[entry.source && e(entry.source), entry.evidence && `evidence: ${e(entry.evidence.name)}`, entry.origin && `from ${e(entry.origin)}`, `recorded ${e(entry.recordedAt)} by ${e(entry.recordedBy ?? 'the program')}`].filter(Boolean).join('; ')}</small></p>
      ${sent.length > 0 ? `<p><small>Sent on its strength: ${sent.join('; ')}</small></p>` : ''}</article>`;
  });
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Permission of ${e(report.supporter.name)}</title><style>${STYLE}</style></head><body>
    <h1>What ${e(report.supporter.name)} agreed to</h1><p>${e(report.organization)}, supporter ${report.supporter.id}, place: ${e(report.supporter.place)}. Made ${e(report.madeAt)}.</p>
    <h2>As it stands</h2><table><tr><th>Channel</th><th>For</th><th>State</th><th>Rests on</th></tr>${standings.join('') || '<tr><td colspan="4">Nothing on record: never asked.</td></tr>'}</table>
    <h2>Entries, newest first</h2>${entries.join('') || '<p>None.</p>'}</body></html>`;
}
