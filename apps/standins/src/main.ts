import { DonorDesk } from './desk';
import { Handsets } from './handsets';
import { Mailroom } from './mailroom';

function setting(name: string): string {
  const value = process.env[name];
  if (!value) throw new Error(`expected the setting ${name} in the environment, got nothing`);
  return value;
}

const mailroom = new Mailroom({
  smtpPort: Number(setting('MAILROOM_SMTP_PORT')),
  httpPort: Number(setting('MAILROOM_HTTP_PORT')),
  bounceHost: '127.0.0.1',
  bouncePort: Number(setting('BOUNCE_SMTP_PORT')),
  zone: process.env.MAILROOM_ZONE ?? '',
  listDomain: 'lists.lanternferry.test',
  settings: {
    openChance: Number(process.env.MAILROOM_OPEN_CHANCE ?? 0),
    followChance: Number(process.env.MAILROOM_FOLLOW_CHANCE ?? 0),
    bounceChance: Number(process.env.MAILROOM_BOUNCE_CHANCE ?? 0),
  },
});
const handsets = new Handsets({
  port: Number(setting('HANDSETS_PORT')),
  key: setting('TEXT_KEY'),
  hookUrl: setting('TEXT_HOOK_URL'),
  hookSecret: setting('TEXT_HOOK_SECRET'),
  ourNumber: setting('TEXT_OUR_NUMBER'),
});

const desk = process.env.DONOR_DESK_PORT
  ? new DonorDesk({ port: Number(process.env.DONOR_DESK_PORT), token: setting('DONOR_DESK_TOKEN') })
  : null;

async function stop(): Promise<void> {
  await Promise.race([
    Promise.all([mailroom.close(), handsets.close(), desk?.close()]),
    new Promise((done) => setTimeout(done, 2000)),
  ]);
  process.exit(0);
}
process.once('SIGTERM', () => void stop());
process.once('SIGINT', () => void stop());
