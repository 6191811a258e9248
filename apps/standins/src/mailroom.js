'use strict';
var __importDefault =
  (this && this.__importDefault) ||
  function (mod) {
    return mod && mod.__esModule ? mod : { default: mod };
  };
Object.defineProperty(exports, '__esModule', { value: true });
exports.Mailroom = void 0;
const express_1 = __importDefault(require('express'));
const mailparser_1 = require('mailparser');
const nodemailer_1 = require('nodemailer');
const smtp_server_1 = require('smtp-server');
const answers_1 = require('./answers');
const chance_1 = require('./chance');
const dsn_1 = require('./dsn');
const mailroom_pages_1 = require('./mailroom-pages');
const MOST = 30_000;
/** Simulates the mail world: takes mail for anybody, keeps it in mailboxes, and does what readers and servers do. */
class Mailroom {
  options;
  mails = [];
  settings;
  deferred = new Map();
  smtp;
  http;
  next = 1;
  constructor(options) {
    this.options = options;
    this.settings = { seed: 'ferry', openChance: 0, followChance: 0, bounceChance: 0, delay: 0, ...options.settings };
    this.smtp = new smtp_server_1.SMTPServer({
      disabledCommands: ['AUTH', 'STARTTLS'],
      size: 30 * 1024 * 1024,
      logger: false,
      onRcptTo: (address, _session, done) => done(this.refusal(address.address)),
      onData: (stream, session, done) => void this.take(stream, session).then(() => done(), done),
    });
    this.smtp.on('error', () => undefined);
    this.smtp.listen(options.smtpPort, '127.0.0.1');
    this.http = this.app().listen(options.httpPort, '127.0.0.1');
  }
  async close() {
    await Promise.all([new Promise((done) => this.smtp.close(() => done())), new Promise((done) => this.http.close(() => done()))]);
  }
  refusal(address) {
    if (/^refuse/i.test(address)) return Object.assign(new Error('5.1.1 No such mailbox here'), { responseCode: 550 });
    const times = this.deferred.get(address) ?? 0;
    if (/^defer/i.test(address) && times < 1) {
      this.deferred.set(address, times + 1);
      return Object.assign(new Error('4.2.1 Try again later'), { responseCode: 451 });
    }
    return null;
  }
  async take(stream, session) {
    const chunks = [];
    for await (const chunk of stream) chunks.push(chunk);
    const raw = Buffer.concat(chunks);
    if (this.settings.delay > 0) await new Promise((done) => setTimeout(done, this.settings.delay));
    const parsed = await (0, mailparser_1.simpleParser)(raw);
    const returnPath = session.envelope.mailFrom ? session.envelope.mailFrom.address : '';
    for (const { address } of session.envelope.rcptTo) {
      const mail = { id: this.next++, to: address.toLowerCase(), returnPath, at: new Date(), raw, parsed };
      this.mails.push(mail);
      if (this.mails.length > MOST) this.mails.shift();
      this.react(mail);
    }
  }
  /** What happens to a mail after it has arrived, a moment later. */
  react(mail) {
    const { seed, openChance, followChance, bounceChance } = this.settings;
    const luck = (what) => (0, chance_1.chance)(seed, what, mail.to, mail.parsed.subject ?? '');
    const bounces = /^bounce/i.test(mail.to) || luck('bounce') < bounceChance;
    const follows = /^follows/i.test(mail.to) || luck('follow') < followChance;
    const opens = follows || /^opens/i.test(mail.to) || luck('open') < openChance;
    const later = (act) => setTimeout(() => void act().catch(() => undefined), 100 + 400 * luck('when'));
    if (bounces) later(() => this.bounce(mail));
    else {
      if (opens) later(() => this.open(mail));
      if (follows) later(() => this.follow(mail, 0));
    }
  }
  /** Sends a delivery status notification to the mail's return path. */
  async bounce(mail) {
    if (mail.returnPath) await this.post('', { to: mail.returnPath, raw: (0, dsn_1.deliveryStatusMail)(mail) });
  }
  /** What a reader does beside the mail itself: writes back, mails the address to leave by, calls it spam. */
  async writeBack(mail, letter) {
    if (letter) await this.post(mail.to, letter);
  }
  /** Gives a mail to the server of the sender's lists, trying again while it is away. */
  async post(from, { to, raw }) {
    const transport = (0, nodemailer_1.createTransport)({ host: this.options.bounceHost, port: this.options.bouncePort, ignoreTLS: true });
    for (let attempt = 0; attempt < 5; attempt++) {
      try {
        await transport.sendMail({ envelope: { from, to: [to] }, raw });
        return;
      } catch {
        await new Promise((done) => setTimeout(done, 1000 * 2 ** attempt));
      }
    }
  }
  /** Loads the pictures, as a mail reader does. */
  async open(mail) {
    const pixel = /<img src="([^"]+\/o\/[^"]+)"/.exec(mail.parsed.html || '')?.[1];
    if (pixel) await fetch(pixel);
  }
  /** Follows the nth link of the letter, leaving out the way out; goes no further than its redirect. */
  async follow(mail, nth) {
    const links = [...(mail.parsed.html || '').matchAll(/<a href="([^"]+\/f\/[^"]+)"/g)].map((found) => found[1]);
    if (links[nth]) await fetch(links[nth], { redirect: 'manual' });
  }
  /** The one-click way out of RFC 8058: a POST to the address in the header, with its one body. */
  async oneClick(mail) {
    const header = mail.parsed.headerLines.find((line) => line.key === 'list-unsubscribe')?.line.replace(/\r?\n\s+/g, ' ') ?? '';
    const address = /<(https?:[^>]+)>/.exec(header)?.[1];
    if (!address) return 0;
    const response = await fetch(address, {
      method: 'POST',
      headers: { 'content-type': 'application/x-www-form-urlencoded' },
      body: 'List-Unsubscribe=One-Click',
    });
    return response.status;
  }
  app() {
    const app = (0, express_1.default)();
    app.use(express_1.default.json(), express_1.default.urlencoded({ extended: false }));
    const find = (id) => this.mails.find((mail) => mail.id === Number(id));
    app.get('/', (request, response) => void response.send((0, mailroom_pages_1.mailsPage)(this.mails, String(request.query.box ?? ''))));
    app.get('/mail/:id', (request, response) => {
      const mail = find(request.params.id);
      if (mail) response.send((0, mailroom_pages_1.mailPage)(mail));
      else response.status(404).send('This mail is no longer kept.');
    });
    app.post('/mail/:id/:act', async (request, response) => {
      const mail = find(request.params.id);
      const acts = {
        bounce: (m) => this.bounce(m),
        open: (m) => this.open(m),
        follow: (m) => this.follow(m, 0),
        'one-click': (m) => this.oneClick(m),
        answer: (m) => this.writeBack(m, (0, answers_1.answerMail)(m, String(request.body.words ?? ''))),
        leave: (m) => this.writeBack(m, (0, answers_1.leavingMail)(m)),
        complain: (m) => this.writeBack(m, (0, answers_1.complaintMail)(m)),
      };
      const act = acts[request.params.act];
      if (mail && act) await act(mail);
      response.redirect(303, `/mail/${request.params.id}`);
    });
    // What a domain name service would say: everything takes mail but what is named so that it does not.
    app.post('/lookup/domains', (request, response) => {
      const domains = request.body.domains;
      const names = Array.isArray(domains) ? domains.filter((one) => typeof one === 'string') : [];
      response.json(
        Object.fromEntries(names.filter((name) => !name.startsWith('silent.')).map((name) => [name, !/^nowhere\.|\.invalid$/.test(name)])),
      );
    });
    app.get('/api/mails', (request, response) => {
      const to = String(request.query.to ?? '').toLowerCase();
      const mails = this.mails.filter((mail) => to === '' || mail.to === to);
      response.json(
        mails.map((mail) => ({
          id: mail.id,
          to: mail.to,
          returnPath: mail.returnPath,
          subject: mail.parsed.subject,
          messageId: mail.parsed.messageId,
          text: mail.parsed.text,
          html: mail.parsed.html || '',
          at: mail.at,
        })),
      );
    });
    app.get('/api/mails/:id/raw', (request, response) => void response.type('message/rfc822').send(find(request.params.id)?.raw ?? ''));
    app.put('/api/settings', (request, response) => void response.json(Object.assign(this.settings, request.body)));
    return app;
  }
}
exports.Mailroom = Mailroom;
//# sourceMappingURL=mailroom.js.map
