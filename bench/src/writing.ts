import { compileLetter, escapeHtml, wrapLetter, type LetterDoc } from '@goodword/core/letter';
import {
  registryOf,
  STANDARD_NAMES,
  type MergeCondition,
  type MergePart,
  type MergeValues,
} from '@goodword/core/merge';
import { composeEmail, filledText, type EmailAround } from '@goodword/server/messages/composer';
import { ProofsJob } from '@goodword/server/sending/proofs.job';
import { ProofsRepository } from '@goodword/server/sending/proofs.repository';
import { jobOf, openBenchHouse, seconds } from './house';
import { writeMessage } from './sending';

const PEOPLE = 100_000;
const SLICE = 5000;

const around: EmailAround = {
  registry: registryOf(STANDARD_NAMES),
  picture: (src) => ({ url: (width) => `https://m.test${src}/${width}`, width: 1200, height: 600 }),
  organization: 'Lantern Ferry Trust',
  imprint: 'Lantern Ferry Trust, 14 Slip Lane, Port Alder',
  why: 'You agreed to get appeals.',
  leaveWords: 'Leave, or choose what you get',
  language: 'en-US',
};
const text = (words: string) => ({ type: 'paragraph', content: [{ type: 'text', text: words }] });
const passage = (tagId: number, words: string) => ({
  type: 'personal',
  attrs: { tree: { kind: 'tag', tagId, has: true } },
  content: [
    { type: 'fitting', content: [text(words)] },
    { type: 'otherwise', content: [text('Come and see her.')] },
  ],
});

/** Twelve fields, two passages, amounts. */
const LETTER = {
  type: 'doc',
  version: 2,
  content: [
    text('Dear {Greeting, or "friend"}, {First name} {Last name}'),
    text('Last winter, on {Last gift: date}, your gift of {Last gift: amount} paid for two oak planks.'),
    passage(1, 'You know her ribs better than we do, {First name}: come and see the new ones on Saturday.'),
    { type: 'gifts', attrs: { href: 'https://give.test/hull' } },
    passage(2, 'The {Chapter} boat is yours.'),
    text('Yours, {Sender: name}, {Sender: title}, {Sender: mobile}, {Sender: email}'),
    text('{Organization: name}, {Organization: postal address}, to {Email}'),
  ],
} as unknown as LetterDoc;

function valuesOf(i: number): MergeValues {
  return {
    firstName: `Person${i}`,
    lastName: "O'Hara",
    greeting: `Person ${i} & Co`,
    email: `p${i}@example.org`,
    chapter: 'East Landing',
    'lastGift.amount': '$40',
    'lastGift.date': 'Mar 4, 2026',
    'sender.name': 'Rosa Oduya',
    'sender.title': 'Keeper',
    'sender.mobile': '+1 206 555 0110',
    'sender.email': 'rosa@lanternferry.test',
    'organization.name': 'Lantern Ferry Trust',
    'organization.postal': '14 Slip Lane',
    'ask.first': '$20',
    'ask.second': '$40',
    'ask.third': '$80',
    'fits:0': i % 2 ? '1' : '',
    'fits:1': i % 3 ? '1' : '',
    leave: 'https://l.test/leave',
    pixel: 'https://l.test/o.gif',
  };
}

/** A condition as somebody would write it. */
function asked(when: MergeCondition): string {
  const one = (key: string) =>
    key.startsWith('!') ? `!v[${JSON.stringify(key.slice(1))}]` : `v[${JSON.stringify(key)}]`;
  if (typeof when === 'string') return one(when);
  return when.map((all) => all.map(one).join(' && ')).join(' || ');
}

/** What somebody would write by hand for this one letter: literals and values, one behind the other. */
function byHand(parts: readonly MergePart[], escape: boolean): (v: MergeValues) => string {
  const source = (all: readonly MergePart[]): string =>
    all
      .map((part) => {
        if (typeof part === 'string') return JSON.stringify(part);
        if ('when' in part) return `(${asked(part.when)} ? ${source(part.then)} : ${source(part.otherwise)})`;
        const value = `(v[${JSON.stringify(part.key)}] || ${JSON.stringify(part.or ?? '')})`;
        return escape ? `esc(${value})` : value;
      })
      .join(' + ') || "''";
  const made = new Function('esc', `return (v) => ${source(parts)}`) as (
    esc: (value: string) => string,
  ) => (v: MergeValues) => string;
  return made(escapeHtml);
}

const middle = (all: number[]) => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)]!;

/** Filling 100,000 mails beside a function written by hand, in turns; compiling; proofs by the database. */
export async function benchWriting(server: string) {
  const composed = composeEmail({ subject: 'For {First name}', preheader: '', letter: LETTER }, around);
  const [subject, html, plain] = [
    byHand(composed.subject, false),
    byHand(composed.html, true),
    byHand(composed.text, false),
  ];
  const links = composed.links.map((_href, at) => `https://l.test/f/${at}`);
  const linked = Object.fromEntries(links.map((href, at) => [`link:${at}`, href]));
  const hand = (values: MergeValues) => {
    const all = { ...values, ...linked };
    return { subject: subject(all), html: html(all), text: plain(all) };
  };
  for (const i of [1, 2, 3, 6]) {
    const { subject: s, html: h, text: t } = filledText(composed, valuesOf(i), links);
    if (JSON.stringify({ subject: s, html: h, text: t }) !== JSON.stringify(hand(valuesOf(i))))
      throw new Error('expected both to make the same mail');
  }
  const ratios: number[] = [];
  let [ours, theirs, bytes] = [0, 0, 0];
  for (let from = 0; from < PEOPLE; from += SLICE) {
    const values = Array.from({ length: SLICE }, (_v, i) => valuesOf(from + i));
    const mine = await seconds(async () => {
      for (const one of values) bytes += filledText(composed, one, links).html.length;
    });
    const other = await seconds(async () => {
      for (const one of values) bytes += hand(one).html.length;
    });
    ours += mine;
    theirs += other;
    ratios.push(other / mine);
  }
  const blocks = Array.from({ length: 60 }, (_v, i) => LETTER.content![i % LETTER.content!.length]!);
  const sixty = { ...LETTER, content: blocks };
  const compiling: number[] = [];
  for (let i = 0; i < 25; i++)
    compiling.push(
      await seconds(async () => {
        const frame = { ...around, subject: 'S {First name}', preheader: '' };
        wrapLetter(compileLetter(sixty, around), sixty, frame, around);
      }),
    );
  return {
    ours: PEOPLE / ours,
    yardstick: PEOPLE / theirs,
    ratio: middle(ratios),
    bytes,
    compiling: middle(compiling) * 1000,
    proofs: await benchProofs(server),
  };
}

/** Proofs over 100,000 people who would get it, through the database. */
async function benchProofs(server: string) {
  const house = await openBenchHouse(server, 'bench_proofs', 'smtp://127.0.0.1:9');
  const id = await writeMessage(house, PEOPLE);
  await house.database.write(house.scope, (tx) =>
    new ProofsRepository().begin(tx, { id, version: 0, group_version: 0 }),
  );
  const job = house.context.get<ProofsJob>(ProofsJob);
  const all = { ...house.scope, chapterId: null };
  const took = await seconds(() => job.run(jobOf(all, id)));
  const row = (await new ProofsRepository().find(house.database.read(house.scope), id))!;
  if (row.state !== 'done' || row.total !== PEOPLE)
    throw new Error(`expected ${PEOPLE} to be looked through, got ${row.total} (${row.state})`);
  const megabytes = process.memoryUsage().rss / 1e6;
  await house.context.close();
  return { took, megabytes };
}
