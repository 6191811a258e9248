import { execFileSync, spawnSync } from 'node:child_process';
import { chmodSync, chownSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from './harness';

/** Its own parts, as Debian's package has them, without anything that listens beside the one port. */
const SERVICES = `
cleanup unix n - n - 0 cleanup
qmgr unix n - n 1 1 qmgr
tlsmgr unix - - n 1000? 1 tlsmgr
rewrite unix - - n - - trivial-rewrite
bounce unix - - n - 0 bounce
defer unix - - n - 0 bounce
trace unix - - n - 0 bounce
verify unix - - n - 1 verify
flush unix n - n 1000? 0 flush
proxymap unix - - n - - proxymap
smtp unix - - n - - smtp
relay unix - - n - - smtp
error unix - - n - - error
retry unix - - n - - error
discard unix - - n - - discard
anvil unix - - n - 1 anvil
scache unix - - n - 1 scache
postlog unix-dgram n - n - 1 postlogd
`;

/**
 * Postfix on loopback, with a queue and a configuration of its own: what is sent to the lists' domain goes to
 * `inbound`, everything else to `sink`. Needs root, as Postfix does; its folder lies where its own user can
 * reach it.
 */
export class Postfix {
  private readonly folder = mkdtempSync(join(tmpdir(), 'gw-postfix-'));
  private readonly etc = join(this.folder, 'etc');
  port = 0;

  constructor(private readonly to: { sink: number; inbound: number; listDomain: string }) {}

  async start(): Promise<this> {
    this.port = await freePort();
    chmodSync(this.folder, 0o755);
    const data = join(this.folder, 'data');
    for (const folder of [this.etc, data, join(this.folder, 'spool')]) mkdirSync(folder);
    const owner = Number(execFileSync('id', ['-u', 'postfix']).toString());
    chownSync(data, owner, 0);
    const key = join(this.folder, 'key.pem');
    const cert = join(this.folder, 'cert.pem');
    execFileSync(
      'openssl',
      [
        'req',
        '-x509',
        '-newkey',
        'rsa:2048',
        '-nodes',
        '-subj',
        '/CN=127.0.0.1',
        '-keyout',
        key,
        '-out',
        cert,
      ],
      { stdio: 'ignore' },
    );
    const transports = join(this.etc, 'transport');
    writeFileSync(
      transports,
      `${this.to.listDomain} smtp:[127.0.0.1]:${this.to.inbound}\n* smtp:[127.0.0.1]:${this.to.sink}\n`,
    );
    const settings = {
      compatibility_level: '3.6',
      queue_directory: join(this.folder, 'spool'),
      data_directory: data,
      command_directory: '/usr/sbin',
      daemon_directory: '/usr/lib/postfix/sbin',
      mail_owner: 'postfix',
      setgid_group: 'postdrop',
      inet_interfaces: '127.0.0.1',
      inet_protocols: 'ipv4',
      myhostname: 'relay.test',
      mydestination: '',
      mynetworks: '127.0.0.0/8',
      smtpd_relay_restrictions: 'permit_mynetworks, reject',
      transport_maps: `texthash:${transports}`,
      smtp_dns_support_level: 'disabled',
      smtpd_tls_cert_file: cert,
      smtpd_tls_key_file: key,
      smtpd_tls_security_level: 'may',
      smtpd_tls_received_header: 'yes',
      // Without it a number comes again within minutes: it is made of the microsecond and the file alone.
      enable_long_queue_ids: 'yes',
      // A queue of seconds in the place of days.
      minimal_backoff_time: '1s',
      maximal_backoff_time: '2s',
      queue_run_delay: '1s',
      maillog_file: join(this.folder, 'mail.log'),
      maillog_file_prefixes: this.folder,
    };
    const lines = Object.entries(settings).map(([name, value]) => `${name} = ${value}\n`);
    writeFileSync(join(this.etc, 'main.cf'), lines.join(''));
    writeFileSync(
      join(this.etc, 'master.cf'),
      `127.0.0.1:${this.port} inet n - n - - smtpd\n${SERVICES.trim()}\n`,
    );
    this.run('start');
    return this;
  }

  get url(): string {
    return `smtp://127.0.0.1:${this.port}?tls.rejectUnauthorized=false`;
  }

  /** Stops it with what is in its queue; `again` goes on with it. */
  stop(): void {
    this.run('stop');
  }

  again(): void {
    this.run('start');
  }

  log(): string {
    return readFileSync(join(this.folder, 'mail.log'), 'utf8');
  }

  close(): void {
    spawnSync('postfix', ['-c', this.etc, 'stop'], { stdio: 'ignore' });
    rmSync(this.folder, { recursive: true, force: true });
  }

  private run(command: 'start' | 'stop'): void {
    const { status, stderr } = spawnSync('postfix', ['-c', this.etc, command], { encoding: 'utf8' });
    if (status !== 0) throw new Error(`postfix ${command} ended with ${status}: ${stderr}\n`);
  }
}
