import { cpus } from 'node:os';
import { join } from 'node:path';
import { benchIntake } from './intake';
import { benchPermission } from './permission';
import { benchPosting } from './posting';
import { benchSending } from './sending';
import { webWeight } from './web';

const whole = (n: number) => Math.round(n).toLocaleString('en-US');

/** Each figure by its letter, with the sentence that it is told in. */
const BENCHES: Record<string, (server: string) => Promise<string>> = {
  a: async (server) => {
    const { ours, yardstick } = await benchIntake(server);
    return `50,000 rows brought in: ${ours.toFixed(1)} s; LOAD DATA of the same rows: ${yardstick.toFixed(1)} s; ratio ${(ours / yardstick).toFixed(2)} (aim: at most 4)`;
  },
  b: async (server) => {
    const { ours, yardstick } = await benchSending(server);
    return `5,000 mails handed over: ${whole(ours)} a second; bare loop: ${whole(yardstick)} a second; ratio ${(ours / yardstick).toFixed(2)} (aim: at least 0.8)`;
  },
  c: async () => {
    const web = webWeight(join(__dirname, '../../apps/web/dist/app'));
    return `initial JavaScript, gzipped: ${whole(web.entry / 1000)} kB, with Today's route ${whole(web.withToday / 1000)} kB (aim: at most 250 kB)`;
  },
  d: async (server) => {
    const of = await benchPermission(server);
    return [
      `the verdict over ${whole(of.people)} people: ${of.ours.toFixed(1)} s; the plainest SQL of the same counts: ${of.yardstick.toFixed(1)} s; ratio ${(of.ours / of.yardstick).toFixed(2)} (aim: at most 1.5)`,
      `    written down with its evidence: ${of.withEvidence.toFixed(1)} s; held against decide() one by one: ${of.differences} differences (aim: none)`,
      `    decide(): ${whole(of.decisionsPerSecond)} people a second (aim: at least 200,000); all states derived anew from the entries: ${of.folded.toFixed(1)} s`,
    ].join('\n');
  },
  e: async (server) => {
    const { median, p95 } = await benchPosting(server);
    return `a form's post to its recorded entry: median ${median.toFixed(1)} ms, 95 of a hundred within ${p95.toFixed(1)} ms (aim: under 50 ms)`;
  },
};

/** All of them, or those whose letters are given: `npm run bench -- d e`. */
async function main(): Promise<void> {
  const server = process.env.BENCH_DATABASE_SERVER ?? '';
  const chosen = process.argv.slice(2);
  console.log(`${cpus().length} cores, Node ${process.versions.node}\n`);
  for (const [letter, bench] of Object.entries(BENCHES))
    if (chosen.length === 0 || chosen.includes(letter)) console.log(`(${letter}) ${await bench(server)}`);
  process.exit(0);
}

void main().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
