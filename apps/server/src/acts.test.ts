import { MailInService } from './inbound/mail-in.service';
import { openTestHouse, type TestHouse } from './testing/harness';
import { seededChance } from './testing/acts/history';
import { SCOPES } from './testing/acts/model';
import { World, type ModelDifference } from './testing/acts/world';

/*
 * Random histories of acts (posts of forms, clicks, choices, answers, texts, files, edits, merges, releases,
 * erasures,
 * days that go by) against the running services, held against a model that was written from the product's
 * words alone:
 * may this person be written to, at this address, on this channel, for this; and who gets what is sent.
 *
 * ACTS_HISTORIES, ACTS_SEED and ACTS_ROUNDS choose how many, which and how long (npm run acts).
 */
const HISTORIES = Number(process.env.ACTS_HISTORIES ?? 500);
const ROUNDS = Number(process.env.ACTS_ROUNDS ?? 1);
const SEED = Number(process.env.ACTS_SEED ?? 20261129);
const BLOCK = 500;

let house: TestHouse | undefined;
let world: World | undefined;
afterEach(async () => {
  world?.close();
  await house?.close();
});

const blocks = Array.from({ length: Math.ceil(HISTORIES / BLOCK) }, (_none, i) => i);
test.each(blocks)(
  'block %# of the histories: the program answers as the product says',
  async (block) => {
    house = await openTestHouse();
    house.app.get(MailInService).listen(house.config.INBOUND_SMTP_PORT, '127.0.0.1');
    house.startWorker();
    const seed = SEED + block * 1_000_003;
    const random = seededChance(seed);
    const here = await World.open(house, random);
    world = here;
    await here.begin(
      Array.from({ length: Math.min(BLOCK, HISTORIES - block * BLOCK) }, (_none, i) => seed + i * 7919),
    );
    const found: ModelDifference[] = [];
    let compared = 0;
    const compare = async () => {
      const outcome = await here.compare();
      compared += outcome.compared;
      found.push(...outcome.differences);
    };
    const some = async (n: number) => {
      for (let i = 0; i < n; i++) await here.step();
    };
    const scope = () => [...SCOPES, here.list][Math.floor(random() * (SCOPES.length + 1))]!;
    await here.importAll();
    found.push(...(await here.send('email', 'appeals')));
    for (let round = 0; round < ROUNDS; round++) {
      await some(2);
      if (random() < 0.5) await here.pass(random() < 0.6 ? 1 : 35);
      if (random() < 0.5) await here.importAll(random() < 0.5);
      if (random() < 0.4) await here.refusals();
      if (random() < 0.5) await here.takeOut();
      await compare();
      const [channel, about] =
        random() < 0.7 ? (['email', scope()] as const) : (['text', 'appeals'] as const);
      found.push(...(await here.send(channel, about, random() < 0.5 ? () => some(1) : undefined)));
      await some(1);
    }
    await some(1);
    await compare();
    if (found.length > 0 || process.env.ACTS_TELL)
      process.stdout.write(
        `seed ${seed}: ${here.histories.length} histories, ${compared} comparisons, ${here.mailsAndTexts} sent, ${found.length} differ\n`,
      );
    const kinds = found.map(
      (one) =>
        `${one.at.replace(/^[^ ]*[@+][^ ]*$/, 'at the door')}: ${one.asked}, expected ${one.model}, got ${one.program}`,
    );
    if (process.env.ACTS_TELL)
      process.stdout.write(
        `${[...new Set(kinds)].map((kind) => `${kinds.filter((one) => one === kind).length} ${kind}`).join('\n')}\n`,
      );
    expect(
      found.slice(0, Number(process.env.ACTS_TELL ?? 5)).map((one) => ({ ...one, log: one.log.join(' | ') })),
    ).toEqual([]);
  },
  1_800_000,
);
