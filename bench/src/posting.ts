import { createApp } from '@goodword/server/create-app';
import { FormsService } from '@goodword/server/forms/forms.service';
import { openBenchHouse } from './house';

const POSTS = 400;

/**
 * Milliseconds from a form's post to its answer, its entries committed: the median and the 95th of a hundred.
 */
export async function benchPosting(server: string): Promise<{ median: number; p95: number }> {
  const house = await openBenchHouse(server, 'bench_posting', 'smtp://127.0.0.1:9');
  const forms = house.context.get(FormsService);
  const { id } = await forms.make(house.scope, 'Bench form', null);
  const { slug } = await forms.show(house.scope, id);
  await forms.open(house.scope, id, true);
  const app = await createApp(house.config);
  await app.listen(0, '127.0.0.1');
  const base = await app.getUrl();
  const took: number[] = [];
  for (let i = 0; i < POSTS; i++) {
    const began = performance.now();
    const response = await fetch(`${base}/join/${slug}`, {
      method: 'POST',
      // Another visitor each time: the limit is per address.
      headers: { 'x-forwarded-for': `203.0.113.${i % 250}` },
      body: new URLSearchParams({
        firstName: 'Ann',
        lastName: 'Lin',
        email: `bench.${i}@example.org`,
        agree_0: '1',
      }),
    });
    await response.text();
    if (response.status !== 200) throw new Error(`expected 200, got ${response.status}`);
    took.push(performance.now() - began);
  }
  await app.close();
  await house.context.close();
  took.sort((a, b) => a - b);
  return { median: took[POSTS / 2]!, p95: took[Math.floor(POSTS * 0.95)]! };
}
