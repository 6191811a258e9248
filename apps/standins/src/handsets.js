'use strict';
var __importDefault =
  (this && this.__importDefault) ||
  function (mod) {
    return mod && mod.__esModule ? mod : { default: mod };
  };
Object.defineProperty(exports, '__esModule', { value: true });
exports.Handsets = void 0;
const node_crypto_1 = require('node:crypto');
const express_1 = __importDefault(require('express'));
const handsets_pages_1 = require('./handsets-pages');
/**
 * Simulates a text gateway and the phones behind it. The same idempotency key is delivered once. Numbers ending in 0198
 * can't be reached; a number ending in 0197 is refused at once.
 */
class Handsets {
  options;
  texts = [];
  byKey = new Map();
  http;
  constructor(options) {
    this.options = options;
    this.http = this.app().listen(options.port, '127.0.0.1');
  }
  async close() {
    await new Promise((done) => this.http.close(() => done()));
  }
  /** A phone answers: the gateway reports it to us, and tries again while we do not answer. */
  async answer(number, body) {
    const text = { id: (0, node_crypto_1.randomUUID)(), number, from: 'them', body, at: new Date(), key: null };
    this.texts.push(text);
    await this.report({ type: 'inbound', id: text.id, from: number, to: this.options.ourNumber, text: body, at: text.at.toISOString() });
  }
  async report(hook) {
    const raw = JSON.stringify(hook);
    const signature = (0, node_crypto_1.createHmac)('sha256', this.options.hookSecret).update(raw).digest('hex');
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
  accept(key, number, body) {
    const known = this.byKey.get(key);
    if (known) return known;
    const text = { id: (0, node_crypto_1.randomUUID)(), number, from: 'us', body, at: new Date(), key };
    this.byKey.set(key, text);
    const reachable = !number.endsWith('0198');
    if (reachable) this.texts.push(text);
    const receipt = {
      type: 'receipt',
      id: text.id,
      key,
      status: reachable ? 'delivered' : 'failed',
      reason: reachable ? '' : 'Number not in service',
    };
    const times = this.options.repeatReceipts ? 2 : 1;
    setTimeout(() => {
      for (let i = 0; i < times; i++) void this.report(receipt);
    }, this.options.receiptDelay ?? 300);
    return text;
  }
  app() {
    const app = (0, express_1.default)();
    app.use(express_1.default.json(), express_1.default.urlencoded({ extended: false }));
    app.post('/v1/messages', (request, response) => {
      const { to, text } = request.body ?? {};
      const key = request.header('idempotency-key');
      if (request.header('authorization') !== `Bearer ${this.options.key}`) return void response.status(401).json({ error: 'Unknown key' });
      if (!to || !text || !key) return void response.status(400).json({ error: 'Expected to, text and an idempotency key' });
      if (to.endsWith('0197')) return void response.status(422).json({ error: 'Not a mobile number', address: true });
      response.status(202).json({ id: this.accept(key, to, text).id });
    });
    // What a look-up of lines would say: of the numbers set aside for fiction the last two of each area are landlines.
    app.post('/lookup/lines', (request, response) => {
      const numbers = request.body.numbers;
      const known = Array.isArray(numbers) ? numbers.filter((one) => typeof one === 'string') : [];
      response.json(Object.fromEntries(known.map((number) => [number, /55501(?:98|99)$/.test(number) ? 'landline' : 'mobile'])));
    });
    app.get('/', (request, response) => void response.send((0, handsets_pages_1.phonesPage)(this.texts, String(request.query.phone ?? ''))));
    app.post('/phones/:number/answer', async (request, response) => {
      await this.answer(request.params.number, String(request.body.text ?? ''));
      response.redirect(303, `/?phone=${encodeURIComponent(request.params.number)}`);
    });
    app.get(
      '/api/texts',
      (request, response) => void response.json(this.texts.filter((text) => !request.query.number || text.number === request.query.number)),
    );
    app.post('/api/phones/:number/answer', async (request, response) => {
      await this.answer(request.params.number, String(request.body.text ?? ''));
      response.status(204).end();
    });
    return app;
  }
}
exports.Handsets = Handsets;
//# sourceMappingURL=handsets.js.map
