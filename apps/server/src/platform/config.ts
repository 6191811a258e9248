import { SHIFT_LANGUAGES, type ShiftLanguage } from '@goodword/core/text';
import { existsSync } from 'node:fs';
import Joi from 'joi';

/**
 * Everything the server and the worker are told from outside. Times in seconds where nothing else is said.
 */
export interface Config {
  DATABASE_URL: string;
  PORT: number;
  HOST: string;
  /** How supporters reach this server: in mails, on leave pages. */
  PUBLIC_URL: string;
  /** Signs tokens and wraps keys; 32 bytes in hex or more. */
  SECRET: string;
  /** The secret of before, whose links are still read; empty where it never changed. */
  SECRET_BEFORE: string;
  DATA_DIR: string;
  /** Built web application to serve; empty serves none. */
  WEB_DIR: string;
  SMTP_URL: string;
  SMTP_CONNECTIONS: number;
  /** Mails a second that the provider accepts; 0 for no limit. */
  SMTP_PER_SECOND: number;
  /** The text gateway; empty where no texts are sent. */
  TEXT_URL: string;
  TEXT_KEY: string;
  TEXT_HOOK_SECRET: string;
  /** Languages whose national tables the gateway takes (3GPP TS 23.038), as `tr,es,pt`. */
  TEXT_SHIFT_TABLES: string;
  /** Port for bounces; 0 for none. */
  INBOUND_SMTP_PORT: number;
  /** Where mail is heard, where that is another address than the pages'. */
  INBOUND_HOST: string;
  /** Certificate and key (PEM) for STARTTLS; empty offers none. */
  INBOUND_TLS_CERT: string;
  INBOUND_TLS_KEY: string;
  DKIM_KEY_FILE: string;
  DKIM_DOMAIN: string;
  DKIM_SELECTOR: string;
  /** A second key that signs beside the first, of the other kind. */
  DKIM_SECOND_KEY_FILE: string;
  DKIM_SECOND_SELECTOR: string;
  /** The key that will take over: it signs nothing yet, its record is shown and looked for. */
  DKIM_NEXT_KEY_FILE: string;
  DKIM_NEXT_SELECTOR: string;
  /** Who we are in the header by which large mailbox providers tell senders of complaints; empty for none. */
  FEEDBACK_SENDER: string;
  LEASE_SECONDS: number;
  /** Milliseconds after which a worker with nothing to do looks for work again. */
  POLL_MS: number;
  /** What one statement may take before the database ends it: no work holds the house. */
  STATEMENT_SECONDS: number;
  LOG_LEVEL: string;
  /**
   * Whose word about the caller's address is believed: addresses and networks, with commas between;
   * "loopback" is this machine.
   */
  TRUSTED_PROXIES: string;
  /**
   * Asked for by /metrics and the API's description from elsewhere than this machine; empty answers nobody
   * else.
   */
  METRICS_TOKEN: string;
  /** Hours without a request after which a session ends. */
  SESSION_IDLE_HOURS: number;
  /** Milliseconds by which guessing is slowed down first; it doubles with each further miss. */
  SIGN_IN_DELAY_MS: number;
  MAILROOM_PAGE: string;
  HANDSETS_PAGE: string;
  /** Who says whether a domain takes mail: "dns", the address of a service, or empty for nobody. */
  DOMAIN_LOOKUP: string;
  /** Where sets of people are worked out: in a thread of its own, or in this one. */
  ROLL: 'thread' | 'here';
  /** What the columns of that may take together. */
  ROLL_MEGABYTES: number;
  /**
   * Who says what line a telephone number is: the address of a service, or empty for what the number itself
   * says.
   */
  LINE_LOOKUP: string;
  /** Where records of a name are looked up: the domain name system, a service, or nowhere. */
  NAME_LOOKUP: string;
  /** Hosts with ports, commas between, on this network that feeds may take from: "desk.house:8443". */
  FEED_PRIVATE: string;
}

/** Whether teammates and supporters come by https: the session's cookie and HSTS follow from it. */
export const isHttps = (config: Pick<Config, 'PUBLIC_URL'>) => config.PUBLIC_URL.startsWith('https:');

const port = Joi.number().port();

/** Ways out in mails must be https (RFC 8058 §3.1); only on the machine itself is http enough. */
function publicUrl(url: string, helpers: Joi.CustomHelpers): unknown {
  const { protocol, hostname } = new URL(url);
  const isHere = hostname === 'localhost' || hostname === '[::1]' || hostname.startsWith('127.');
  if (protocol !== 'https:' && !isHere)
    return helpers.message({ custom: '"PUBLIC_URL" must begin with https:// where it is not this machine' });
  return url.replace(/\/$/, '');
}

/** Of 32 bytes by chance, 26 to 32 differ; fewer than 16 is none that chance made. */
function secret(hex: string, helpers: Joi.CustomHelpers): unknown {
  const bytes = new Set(hex.toLowerCase().match(/../g));
  if (bytes.size >= 16) return hex;
  return helpers.message({ custom: '"SECRET" is not made by chance; make one with: openssl rand -hex 32' });
}

function existing(path: string, helpers: Joi.CustomHelpers): unknown {
  if (existsSync(path)) return path;
  return helpers.message({ custom: `{{#label}} names a file that is not there: ${path}` });
}

const file = Joi.string().allow('').custom(existing).default('');

/** No gateway, or one over SMPP, whose proof is in its URL. */
const notOverHttp = Joi.string()
  .pattern(/^ss?mpp:/)
  .allow('', null);

const schema = Joi.object<Config>({
  DATABASE_URL: Joi.string()
    .uri({ scheme: ['mysql', 'mariadb'] })
    .required(),
  PORT: port.default(4600),
  HOST: Joi.string().default('127.0.0.1'),
  PUBLIC_URL: Joi.string()
    .uri({ scheme: ['http', 'https'] })
    .custom(publicUrl)
    .required(),
  SECRET: Joi.string().hex().min(64).custom(secret).required(),
  SECRET_BEFORE: Joi.string().hex().min(64).allow('').default(''),
  DATA_DIR: Joi.string().required(),
  WEB_DIR: Joi.string().allow('').default(''),
  SMTP_URL: Joi.string()
    .uri({ scheme: ['smtp', 'smtps'] })
    .required(),
  SMTP_CONNECTIONS: Joi.number().integer().min(1).max(100).default(5),
  SMTP_PER_SECOND: Joi.number().min(0).default(0),
  // With the system id and the password in it where it speaks SMPP.
  TEXT_URL: Joi.string()
    .uri({ scheme: ['http', 'https', 'smpp', 'ssmpp'] })
    .pattern(/^ss?mpp:\/\/[^@]+@|^https?:/, 'system_id:password@ after smpp://')
    .allow('')
    .default(''),
  TEXT_KEY: Joi.string().when('TEXT_URL', {
    is: notOverHttp,
    then: Joi.string().allow('').default(''),
    otherwise: Joi.string().min(8).required(),
  }),
  TEXT_SHIFT_TABLES: Joi.string()
    .pattern(/^(?:(?:tr|es|pt)(?:,(?=.)|$))*$/)
    .allow('')
    .default('')
    // Over SMPP the default alphabet and UCS-2 are spoken.
    .when('TEXT_URL', {
      is: Joi.string()
        .pattern(/^ss?mpp:/)
        .required(),
      then: Joi.valid(''),
    }),
  TEXT_HOOK_SECRET: Joi.string().when('TEXT_URL', {
    is: notOverHttp,
    then: Joi.string().allow('').default(''),
    otherwise: Joi.string().min(16).required(),
  }),
  INBOUND_SMTP_PORT: Joi.number().integer().min(0).max(65535).default(0),
  INBOUND_HOST: Joi.string().allow('').default(''),
  INBOUND_TLS_CERT: file,
  INBOUND_TLS_KEY: file.when('INBOUND_TLS_CERT', {
    is: Joi.string().min(1).required(),
    then: Joi.string().min(1).required(),
  }),
  DKIM_KEY_FILE: file,
  DKIM_DOMAIN: Joi.string()
    .allow('')
    .default('')
    .when('DKIM_KEY_FILE', {
      is: Joi.string().min(1).required(),
      then: Joi.string()
        .invalid('')
        .required()
        .messages({ 'any.invalid': '"DKIM_DOMAIN" is missing: a key signs for a domain' }),
    }),
  DKIM_SELECTOR: Joi.string().default('gw'),
  DKIM_SECOND_KEY_FILE: file,
  DKIM_SECOND_SELECTOR: Joi.string().default('gw-ed'),
  DKIM_NEXT_KEY_FILE: file,
  DKIM_NEXT_SELECTOR: Joi.string().default('gw-next'),
  FEEDBACK_SENDER: Joi.string()
    .pattern(/^[A-Za-z0-9-]{5,15}$/)
    .allow('')
    .default(''),
  LEASE_SECONDS: Joi.number().min(1).max(3600).default(60),
  POLL_MS: Joi.number().integer().min(10).max(10_000).default(400),
  STATEMENT_SECONDS: Joi.number().integer().min(10).max(86_400).default(900),
  LOG_LEVEL: Joi.string().valid('fatal', 'error', 'warn', 'info', 'debug', 'trace', 'silent').default('info'),
  TRUSTED_PROXIES: Joi.string().allow('').default('loopback'),
  METRICS_TOKEN: Joi.string().min(16).allow('').default(''),
  SESSION_IDLE_HOURS: Joi.number()
    .min(0.01)
    .max(24 * 14)
    .default(12),
  SIGN_IN_DELAY_MS: Joi.number().integer().min(1).max(5000).default(250),
  MAILROOM_PAGE: Joi.string().uri().allow('').default(''),
  HANDSETS_PAGE: Joi.string().uri().allow('').default(''),
  DOMAIN_LOOKUP: Joi.alternatives(
    Joi.string().valid('dns', ''),
    Joi.string().uri({ scheme: ['http', 'https'] }),
  ).default(''),
  ROLL: Joi.string().valid('thread', 'here').default('thread'),
  ROLL_MEGABYTES: Joi.number().integer().min(16).default(512),
  FEED_PRIVATE: Joi.string()
    .pattern(/^(?:[^,:\s]+:\d{1,5}(?:,(?=.)|$))*$/, 'host:port, with commas between')
    .allow('')
    .default(''),
  NAME_LOOKUP: Joi.alternatives(
    Joi.string().valid('dns', ''),
    Joi.string().uri({ scheme: ['http', 'https'] }),
  ).default('dns'),
  LINE_LOOKUP: Joi.string()
    .uri({ scheme: ['http', 'https'] })
    .allow('')
    .default(''),
});

/** Everything that is wrong with the environment, a line each; none where it can be used. */
export function configFaults(env: NodeJS.ProcessEnv): string[] {
  return (
    schema
      .validate(env, { abortEarly: false, stripUnknown: true })
      .error?.details.map((detail) => detail.message) ?? []
  );
}

/** Reads the environment; throws one error that names every wrong value and what was expected of it. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const { value, error } = schema.validate(env, { abortEarly: false, stripUnknown: true });
  if (!error) return value;
  const lines = error.details.map((detail) => `  ${detail.message}`);
  throw new Error(
    `The configuration is not usable:\n${lines.join('\n')}\nSee .env.example for every setting.`,
  );
}

/**
 * For a process's first line: the configuration, or every wrong value said and an end with EX_CONFIG
 * (sysexits.h).
 */
export function readConfigOrExit(env: NodeJS.ProcessEnv): Config {
  try {
    return readConfig(env);
  } catch (error) {
    process.stderr.write(`${(error as Error).message}\n`);
    process.exit(78);
  }
}

export const CONFIG = Symbol('CONFIG');

/** The languages whose national tables the gateway takes. */
export const shiftTablesOf = ({
  TEXT_SHIFT_TABLES: tables,
}: Pick<Config, 'TEXT_SHIFT_TABLES'>): ShiftLanguage[] =>
  SHIFT_LANGUAGES.filter((language) => tables.split(',').includes(language));
