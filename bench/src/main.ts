import { cpus } from 'node:os';
import { join } from 'node:path';
import { benchIntake } from './intake';
import { benchSending } from './sending';
import { webWeight } from './web';

async function main(): Promise<void> {
  const server = process.env.BENCH_DATABASE_SERVER ?? '';
  console.log(`${cpus().length} cores, Node ${process.versions.node}\n`);
  const intake = await benchIntake(server);
  console.log(
    `(a) 50,000 rows brought in: ${intake.ours.toFixed(1)} s; LOAD DATA of the same rows: ${intake.yardstick.toFixed(1)} s; ratio ${(intake.ours / intake.yardstick).toFixed(2)} (aim: at most 4)`,
  );
  const sending = await benchSending(server);
  console.log(
    `(b) 5,000 mails handed over: ${sending.ours.toFixed(0)} a second; bare loop: ${sending.yardstick.toFixed(0)} a second; ratio ${(sending.ours / sending.yardstick).toFixed(2)} (aim: at least 0.8)`,
  );
  const web = webWeight(join(__dirname, '../../apps/web/dist/app'));
  console.log(
    `(c) initial JavaScript, gzipped: ${(web.entry / 1000).toFixed(0)} kB, with Today's route ${(web.withToday / 1000).toFixed(0)} kB (aim: at most 250 kB)`,
  );
  process.exit(0);
}

void main().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
