import { createHmac, randomUUID } from 'node:crypto';
import express from 'express';
import { phonesPage } from './handsets-pages';
import type { Text } from './text';

export interface HandsetsOptions {
  port: number;
  key: string;
  hookUrl: string;
  hookSecret: string;
  /** Our number, to which phones answer. */
  ourNumber: string;
  /** Milliseconds before a text is reported as delivered. */
  receiptDelay?: number;
  /** Report each receipt twice, as networks do. */
  repeatReceipts?: boolean;
}

/** Numbers that can't be reached, by their end, and what the network says of each (3GPP TS 29.002). */
const FAULTS: Readonly<Record<string, { code: string; reason: string }>> = {
  '0198': { code: '1', reason: 'Number not in service' },
  '9075550196': { code: '27', reason: 'Absent subscriber' },
  '9075550195': { code: '', reason: 'Filtered as spam by the carrier' },
};

/**
 * Simulates a text gateway and the phones behind it. The same idempotency key is delivered once. Numbers
 * ending in 0198 can't be reached; a number ending in 0197 is refused at once.
 */
export class Handsets {
  readonly texts: Text[] = [];
  private readonly byKey = new Map<string, Text>();
  private readonly http: ReturnType<express.Express['listen']>;

  constructor(private readonly options: HandsetsOptions) {
    this.http = this.app().listen(options.port, '127.0.0.1');
  }

  async close(): Promise<void> {
    await new Promise<void>((done) => this.http.close(() => done()));
  }

  /** A phone answers: the gateway reports it to us, and tries again while we do not answer. */
  async answer(number: string, body: string): Promise<void> {
    const text: Text = { id: randomUUID(), number, from: 'them', body, at: new Date(), key: null };
    this.texts.push(text);
    await this.report({
      type: 'inbound',
      id: text.id,
      from: number,
      to: this.options.ourNumber,
      text: body,
      at: text.at.toISOString(),
    });
  }

  private async report(hook: object): Promise<void> {
    const raw = JSON.stringify(hook);
    const signature = createHmac('sha256', this.options.hookSecret).update(raw).digest('hex');
    for (let attempt = 0; attempt < 6; attempt++) {
      try {
        const response = await fetch(this.options.hookUrl, {
          method: 'POST',
          headers: { 'content-type': 'application/json', 'x-signature': signature },
          body: raw,
        });
        if (response.ok) return;
      } catch {
        // Tried again below, as a gateway does.
      }
      await new Promise((done) => setTimeout(done, 500 * 2 ** attempt));
    }
  }

  private accept(key: string, number: string, body: string): Text {
    const known = this.byKey.get(key);
    if (known) return known;
    const text: Text = { id: randomUUID(), number, from: 'us', body, at: new Date(), key };
    this.byKey.set(key, text);
    const fault = FAULTS[number.slice(-10)] ?? FAULTS[number.slice(-4)];
    const reachable = fault === undefined;
    if (reachable) this.texts.push(text);
    const receipt = {
      type: 'receipt',
      id: text.id,
      key,
      status: reachable ? 'delivered' : 'failed',
      reason: fault?.reason ?? '',
      code: fault?.code ?? '',
    };
    const times = this.options.repeatReceipts ? 2 : 1;
    setTimeout(() => {
      for (let i = 0; i < times; i++) void this.report(receipt);
    }, this.options.receiptDelay ?? 300);
    return text;
  }

  private app(): express.Express {
    const app = express();
    app.use(express.json(), express.urlencoded({ extended: false }));
    app.post('/v1/messages', (request, response) => {
      const { to, text } = (request.body ?? {}) as { to?: string; text?: string };
      const key = request.header('idempotency-key');
      if (request.header('authorization') !== `Bearer ${this.options.key}`)
        return void response.status(401).json({ error: 'Unknown key' });
      if (!to || !text || !key)
        return void response.status(400).json({ error: 'Expected to, text and an idempotency key' });
      if (to.endsWith('0197'))
        return void response.status(422).json({ error: 'Not a mobile number', address: true });
      response.status(202).json({ id: this.accept(key, to, text).id });
    });
    // What a look-up of lines would say: of the numbers set aside for fiction the last of each area is a
    // landline.
    app.post('/lookup/lines', (request, response) => {
      const numbers = (request.body as { numbers?: unknown }).numbers;
      const known = Array.isArray(numbers)
        ? numbers.filter((one): one is string => typeof one === 'string')
        : [];
      response.json(
        Object.fromEntries(known.map((number) => [number, /5550199$/.test(number) ? 'landline' : 'mobile'])),
      );
    });
    app.get(
      '/',
      (request, response) => void response.send(phonesPage(this.texts, String(request.query.phone ?? ''))),
    );
    app.post('/phones/:number/answer', async (request, response) => {
      await this.answer(request.params.number, String((request.body as { text?: string }).text ?? ''));
      response.redirect(303, `/?phone=${encodeURIComponent(request.params.number)}`);
    });
    app.get(
      '/api/texts',
      (request, response) =>
        void response.json(
          this.texts.filter((text) => !request.query.number || text.number === request.query.number),
        ),
    );
    app.post('/api/phones/:number/answer', async (request, response) => {
      await this.answer(request.params.number, String((request.body as { text?: string }).text ?? ''));
      response.status(204).end();
    });
    return app;
  }
}
