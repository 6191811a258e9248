import { SMTPServer } from 'smtp-server';

/** An SMTP server in a process of its own that takes everything and keeps nothing. Prints its port. */
const server = new SMTPServer({
  disabledCommands: ['AUTH', 'STARTTLS'],
  logger: false,
  onData(stream, _session, done) {
    stream.resume();
    stream.on('end', () => done());
  },
});
server.on('error', () => undefined);
server.listen(0, '127.0.0.1', () => console.log((server.server.address() as { port: number }).port));
