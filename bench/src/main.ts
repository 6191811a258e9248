import { cpus } from 'node:os';
import { join } from 'node:path';
import { keepHeapSmall } from '@goodword/server/platform/memory';
import { benchMatching, benchRows } from './gather';
import { benchAnswers } from './answers';
import { benchIntake } from './intake';
import { benchPeople, type Spread } from './people';
import { benchPermission } from './permission';
import { benchPosting } from './posting';
import { benchRoll } from './roll';
import { benchSending } from './sending';
import { benchWriting } from './writing';
import { webWeight } from './web';

const whole = (n: number) => Math.round(n).toLocaleString('en-US');

/** Each figure by its letter, with the sentence that it is told in. */
const BENCHES: Record<string, (server: string) => Promise<string>> = {
  a: async (server) => {
    const { ours, yardstick, parts } = await benchIntake(server);
    const each = `read ${parts.read.toFixed(1)}, checked ${parts.check.toFixed(1)}, brought in ${parts.bring.toFixed(1)}`;
    return `50,000 rows brought in: ${ours.toFixed(1)} s (${each}); LOAD DATA of the same rows: ${yardstick.toFixed(1)} s; ratio ${(ours / yardstick).toFixed(2)} (aim: at most 2.5)`;
  },
  b: async (server) => {
    const { ours, yardstick, ratio, pairs } = await benchSending(server);
    return `mails handed over in slices of 400: ${whole(ours)} a second; bare loop: ${whole(yardstick)} a second; the middle of ${pairs} pairs in turns: ${ratio.toFixed(2)} (aim: at least 1.2)`;
  },
  c: async () => {
    const web = webWeight(join(__dirname, '../../apps/web/dist/app'));
    return `initial JavaScript, gzipped: ${whole(web.entry / 1000)} kB, with Today's route ${whole(web.withToday / 1000)} kB (aim: at most 250 kB)`;
  },
  d: async (server) => {
    const of = await benchPermission(server);
    return [
      `the verdict over ${whole(of.people)} people with its reason: ${of.cold.toFixed(1)} s with nothing read (aim: 6 s), ${of.warm.toFixed(2)} s from columns that are there (aim: 1 s); the plainest SQL of the same counts: ${of.yardstick.toFixed(1)} s`,
      `    a last look of everybody, kept: ${of.look.toFixed(2)} s (aim: 1 s); from facts in slices, each with the entry that it rests on: ${of.withEvidence.toFixed(1)} s; both held against the core one by one: ${of.differences} differences (aim: none)`,
      `    an outbox of ${whole(of.people)} written: ${of.outbox.ours.toFixed(1)} s, and its group frozen ${of.outbox.frozen.toFixed(1)} s; one INSERT … SELECT of the same rows: ${of.outbox.yardstick.toFixed(1)} s; ratio ${(of.outbox.ours / of.outbox.yardstick).toFixed(2)} (aim: at most 2)`,
      `    deciding from entries: ${whole(of.decisionsPerSecond)} people a second; all states derived anew from the entries: ${of.folded.toFixed(1)} s`,
    ].join('\n');
  },
  e: async (server) => {
    const { median, p95 } = await benchPosting(server);
    return `a form's post to its recorded entry: median ${median.toFixed(1)} ms, 95 of a hundred within ${p95.toFixed(1)} ms (aim: under 50 ms)`;
  },
  f: async (server) => {
    const small = await benchRows(server, 50_000);
    const large = await benchRows(server, 500_000);
    const sum = (of: typeof small) => of.read + of.check + of.bring;
    const line = (rows: number, of: typeof small) =>
      `${whole(rows)} rows: read ${of.read.toFixed(1)} s, checked ${of.check.toFixed(1)} s, brought in ${of.bring.toFixed(1)} s, ${of.out.toFixed(1)} s out again (${(of.out / sum(of)).toFixed(2)} times in; aim: at most 1.5), ${whole(rows / sum(of))} rows a second, at most ${whole(of.megabytes)} MB`;
    return `${line(50_000, small)}\n    ${line(500_000, large)}\n    growth against linear: ${(sum(large) / sum(small) / 10).toFixed(2)} (aim: at most 1.15)`;
  },
  g: async (server) => {
    const { all, byEmail, byName, found } = await benchMatching(server);
    return `50,000 rows against 1,000,000 people: ${all.toFixed(2)} s with likely doubles (${whole(found)} candidates); the exact joins alone ${(byEmail + byName).toFixed(2)} s (by email ${byEmail.toFixed(2)}, by name and postcode ${byName.toFixed(2)}); ratio ${(all / (byEmail + byName)).toFixed(2)} (aim: at most 1.5)`;
  },
  h: async (server) => {
    // The large one first, as a process that begins: the small one finds everything compiled, so growth is
    // rather told too high.
    const of = await benchRoll(server, 1_000_000);
    const small = await benchRoll(server, 100_000);
    const lines = (n: number) => `${n.toFixed(0)} ms`;
    return [
      `${whole(of.people)} people, counted with the narrowing of every line: 1 line ${lines(of.one)}, 4 lines ${lines(of.four)}, 8 lines ${lines(of.eight)} (aim: 8 within 150 ms)`,
      `    8 lines after one was changed ${lines(of.changed)} (aim: 50 ms); with nothing read yet ${of.cold.toFixed(1)} s (aim: 5 s)`,
      `    best SQL for the count alone: 4 lines ${of.sqlFour.toFixed(2)} s, ${whole((of.sqlFour * 1000) / of.four)} times ours; 8 lines ${of.sqlEight.toFixed(2)} s, ${whole((of.sqlEight * 1000) / of.eight)} times ours (aim: at least 50 times); ${of.settings}`,
      `    the count after another process wrote ${lines(of.afterWrite)}; an order made ${lines(of.makeOrder)}, then a page ${lines(of.page)}, and ${lines(of.mendOrder)} after somebody's name changed (aim: 100 ms); a name found ${lines(of.find)} (aim: 150 ms)`,
      `    a tag put on ${whole(of.bulk!.people)} as an act on a group: ${of.bulk!.ours.toFixed(2)} s,
          undone in ${of.bulk!.undo.toFixed(2)} s; one INSERT …
        SELECT ${of.bulk!.yardstick.toFixed(2)} s; ratio ${(of.bulk!.ours / of.bulk!.yardstick).toFixed(2)}
          (aim: at most 3)`,
      `    all of it loaded, the process takes ${whole(of.megabytes)} MB (aim: under 700 MB)`,
      `    growth from ${whole(small.people)} against linear: cold ${(of.cold / small.cold / 10).toFixed(2)}, 8 lines ${(of.eight / small.eight / 10).toFixed(2)}, an order ${(of.makeOrder / small.makeOrder / 10).toFixed(2)} (aim: at most 1)`,
    ].join('\n');
  },
  k: async (server) => {
    const of = await benchWriting(server);
    return [
      `100,000 mails filled (subject, HTML, text; 12 fields, 2 passages, amounts): ${whole(of.ours)} a second; a function written by hand for this letter that makes the same bytes: ${whole(of.yardstick)}; ratio ${of.ratio.toFixed(2)} in the middle of 20 turns (aim: at least 0.8)`,
      `    a letter of 60 blocks compiled: ${of.compiling.toFixed(1)} ms (aim: under 20 ms)`,
      `    100,000 readers looked through for proofs: ${of.proofs.took.toFixed(1)} s, the process takes ${whole(of.proofs.megabytes)} MB (aim: 60 s, 300 MB)`,
    ].join('\n');
  },
  j: async (server) => {
    const { alone, beside, takingOut, tagging } = await benchAnswers(server);
    const told = (of: number[]) =>
      `${[...of].sort((a, b) => a - b)[Math.floor(of.length / 2)]!.toFixed(2)} s in the middle, ${Math.max(...of).toFixed(2)} s at most`;
    return `a word to one person handed over while 200,000 people are taken out (${takingOut.toFixed(0)} s) and a million are tagged (${tagging.toFixed(0)} s): ${beside.length} times, ${told(beside)} (aim: 5 s); with nothing else to do ${told(alone)}`;
  },
  i: async (server) => {
    const of = await benchPeople(server);
    const told = ({ median, p95, aSecond }: Spread) =>
      `${whole(median)} ms in the middle, 95 of a hundred within ${whole(p95)} ms, ${whole(aSecond)} pages a second`;
    const share = (n: number) => `${(n * 100).toFixed(1)} %`;
    return [
      `with nothing to do the server takes ${share(of.idleServer)} of a core and the worker ${share(of.idleWorker)} (aim: under 1 % together)`,
      `    fifty people on the main pages, looking at each for a second: ${told(of.atWork)} (aim: 300 ms)`,
      `    fifty without any pause: ${told(of.crowded)}; fifty who ask for nothing but whether it lives: ${told(of.bare)}`,
    ].join('\n');
  },
};

/** What the worker does is measured as the worker runs. */
const OF_THE_WORKER = ['a', 'b', 'f', 'g', 'k'];

/**
 * All of them, or those whose letters are given: `npm run bench -- d e`. The start script gives one at a
 * time, each a process of its own.
 */
async function main(): Promise<void> {
  const server = process.env.BENCH_DATABASE_SERVER ?? '';
  const chosen = process.argv.slice(2);
  if (chosen.length > 0 && chosen.every((letter) => OF_THE_WORKER.includes(letter))) keepHeapSmall();
  if (!process.env.BENCH_QUIET) console.log(`${cpus().length} cores, Node ${process.versions.node}\n`);
  for (const [letter, bench] of Object.entries(BENCHES))
    if (chosen.length === 0 || chosen.includes(letter)) console.log(`(${letter}) ${await bench(server)}`);
  process.exit(0);
}

void main().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
