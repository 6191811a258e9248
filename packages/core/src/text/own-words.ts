/*
 * What somebody wrote in answer to a mail, without what they answered. Readers quote in many ways: each line
 * marked with ">", a line that says who wrote when, a block of headers, nothing at all. Words may stand
 * above, between and below. So lines are weighed one by one, and what stood in our own letter is never taken
 * for theirs.
 */

/**
 * "On 3 March, Rosa wrote:" in the languages of supporters' pages and some more; it may be broken over lines.
 */
const WROTE =
  '(?:wrote|writes|schrieb|schreibt|a écrit|écrit|escribió|escribe|ha scritto|schreef|skrev|escreveu)';
const ATTRIBUTION = new RegExp(
  `^(?:on|am|le|el|il|op|den|em|at)\\b[^\\n]{3,200}${WROTE}[^\\n]{0,60}:\\s*$|^.{2,120}(?:<[^>@]{1,120}@[^>]{1,200}>|\\b\\d{4}\\b).{0,60}${WROTE}\\s*:\\s*$|^.{2,200}\\b${WROTE} .{2,120}:\\s*$`,
  'iu',
);
/** Headers of a letter that is quoted whole. */
const HEADER =
  /^[\s>*]{0,40}(?:from|sent|date|to|cc|subject|reply-to|von|gesendet|datum|an|betreff|de|envoyé|date|à|objet|enviado|fecha|para|asunto)\s?\*?:\s/iu;
/** A line that sets a quoted letter apart. A line of dashes alone is only a line. */
const APART =
  /^\s*-{2,}\s*(?:original message|forwarded message|ursprüngliche nachricht|weitergeleitete nachricht|message d'origine|message original|mensaje original|mensaje reenviado)\s*-{2,}\s*$|^\s*begin forwarded message:\s*$/iu;
/** A drawn line. */
const RULE = /^[-_=*–—]{3,}$/;
/** RFC 3676 §4.3: two dashes and a space begin a signature; mailers lose the space. */
const SIGNATURE = /^-- ?$/;
/** Lines that a device or program puts under what was written. */
const DEVICE =
  /^\s*(?:sent (?:from|via|with) (?:my|the|a)\b.*|get \w+ for (?:ios|android).*|von meinem .{1,60} gesendet.*|gesendet (?:von|mit) .*|envoy[ée] (?:de|depuis) m(?:on|a) .*|enviado desde mi .*)$/iu;

/** So many words in a row, found in our letter, are its words. */
const RUN = 3;
/** A line is ours when so much of it stands in our letter. */
const OURS = 0.75;

const wordsOf = (text: string) =>
  text
    .normalize('NFKC')
    .toLowerCase()
    .match(/[\p{L}\p{N}]+/gu) ?? [];

/** Runs of words of our letter, to find its lines however they were broken anew. */
function runsOf(letter: string): Set<string> {
  const words = wordsOf(letter);
  const runs = new Set<string>();
  for (let at = 0; at + RUN <= words.length; at++) runs.add(words.slice(at, at + RUN).join(' '));
  return runs;
}

function isOurs(line: string, runs: ReadonlySet<string>): boolean {
  const words = wordsOf(line);
  if (words.length < RUN) return false;
  let covered = 0;
  const found = words.map(() => false);
  for (let at = 0; at + RUN <= words.length; at++)
    if (runs.has(words.slice(at, at + RUN).join(' '))) for (let k = 0; k < RUN; k++) found[at + k] = true;
  for (const one of found) if (one) covered++;
  return covered / words.length >= OURS;
}

/** Whether a line is what a device puts under a message by itself. */
export function isFromDevice(line: string): boolean {
  return DEVICE.test(line);
}

type Kind = 'own' | 'quoted' | 'blank';

/**
 * The person's own words in a plain-text answer. `letter` is what we had written to them, as text: its lines
 * are never theirs, quoted or not; without it, what follows an attribution unmarked counts as quoted.
 */
export function ownWords(mail: string, letter = ''): string {
  // RFC 5322 2.1.1: a line has 998 characters at most; what a longer one says, it says at its beginning.
  const lines = joinedAttributions(mail.split(/\r\n|\r|\n/).map((line) => line.slice(0, 2000)));
  const runs = runsOf(letter);
  const ours = new Set(wordsOf(letter));
  const kinds: Kind[] = [];
  /** Within a letter that was quoted without marks. */
  let inside = false;
  let signature = false;
  for (const [i, line] of lines.entries()) {
    const opens = ATTRIBUTION.test(line.trim()) || APART.test(line) || isHeaderBlock(lines, i);
    const kind = opens ? 'quoted' : kindOf(line, { runs, inside });
    if (opens) inside = true;
    else if (inside && kind === 'own' && runs.size > 0 && !isShortOurs(line, ours)) inside = false;
    if (SIGNATURE.test(line)) signature = true;
    else if (signature && kind === 'quoted') signature = false;
    kinds.push(signature || (inside && kind !== 'blank') ? 'quoted' : kind);
  }
  return lines
    .filter((line, i) => kinds[i] !== 'quoted' && !DEVICE.test(line) && !RULE.test(line.trim()))
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

function kindOf(line: string, { runs, inside }: { runs: ReadonlySet<string>; inside: boolean }): Kind {
  const text = line.trim();
  if (text === '' || RULE.test(text)) return 'blank';
  if (/^[>|]/.test(text) || isOurs(text, runs)) return 'quoted';
  return inside && HEADER.test(line) ? 'quoted' : 'own';
}

/** Three headers in a row begin a letter that is quoted whole. */
function isHeaderBlock(lines: readonly string[], at: number): boolean {
  return [0, 1, 2].every((n) => HEADER.test(lines[at + n] ?? ''));
}

/** A line too short for a run, all of whose words stand in our letter: its "Warmly," or a name. */
function isShortOurs(line: string, ours: ReadonlySet<string>): boolean {
  const words = wordsOf(line);
  return (
    words.length < RUN && words.every((word) => ours.has(word)) && !/\b(?:stop|unsubscribe)\b/i.test(line)
  );
}

/** An attribution that was broken over two or three lines, as one. */
function joinedAttributions(lines: readonly string[]): string[] {
  const out: string[] = [];
  for (let i = 0; i < lines.length; i++) {
    const joined = [2, 3]
      .map((n) => lines.slice(i, i + n).join(' '))
      .find((text) => startsOne(lines[i]!) && ATTRIBUTION.test(text.trim()));
    if (!joined || ATTRIBUTION.test(lines[i]!.trim())) out.push(lines[i]!);
    else {
      const n = [2, 3].find((count) => lines.slice(i, i + count).join(' ') === joined)!;
      out.push(joined);
      i += n - 1;
    }
  }
  return out;
}

const startsOne = (line: string) => /^(?:on|am|le|el|il|op|den|em)\b/i.test(line.trim());
