import Joi from 'joi';

/** Everything the server and the worker are told from outside. Times in seconds. */
export interface Config {
  DATABASE_URL: string;
  PORT: number;
  HOST: string;
  /** How supporters reach this server: in mails, on leave pages. */
  PUBLIC_URL: string;
  /** Signs tokens and keys hashes; 32 bytes in hex or more. */
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
  TEXT_URL: string;
  TEXT_KEY: string;
  TEXT_HOOK_SECRET: string;
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
  LEASE_SECONDS: number;
  /** Milliseconds after which a worker with nothing to do looks for work again. */
  POLL_MS: number;
  LOG_LEVEL: string;
  COOKIE_SECURE: boolean;
  MAILROOM_PAGE: string;
  HANDSETS_PAGE: string;
  /** Who says whether a domain takes mail: "dns", the address of a service, or empty for nobody. */
  DOMAIN_LOOKUP: string;
  /** Where sets of people are worked out: in a thread of its own, or in this one. */
  ROLL: 'thread' | 'here';
  /** What the columns of that may take together. */
  ROLL_MEGABYTES: number;
  /** Who says what line a telephone number is: the address of a service, or empty for what the number itself says. */
  LINE_LOOKUP: string;
}

const port = Joi.number().port();

/** Ways out in mails must be https (RFC 8058 §3.1); only on the machine itself is http enough. */
function isSafePublicUrl(url: string): boolean {
  const { protocol, hostname } = new URL(url);
  return protocol === 'https:' || hostname === 'localhost' || hostname === '[::1]' || hostname.startsWith('127.');
}

const schema = Joi.object<Config>({
  DATABASE_URL: Joi.string()
    .uri({ scheme: ['mysql', 'mariadb'] })
    .required(),
  PORT: port.default(4600),
  HOST: Joi.string().default('127.0.0.1'),
  PUBLIC_URL: Joi.string()
    .uri({ scheme: ['http', 'https'] })
    .custom((url: string, helpers) => (isSafePublicUrl(url) ? url.replace(/\/$/, '') : helpers.error('string.uriCustomScheme', { scheme: 'https' })))
    .required(),
  SECRET: Joi.string().hex().min(64).required(),
  SECRET_BEFORE: Joi.string().hex().min(64).allow('').default(''),
  DATA_DIR: Joi.string().required(),
  WEB_DIR: Joi.string().allow('').default(''),
  SMTP_URL: Joi.string()
    .uri({ scheme: ['smtp', 'smtps'] })
    .required(),
  SMTP_CONNECTIONS: Joi.number().integer().min(1).max(100).default(5),
  SMTP_PER_SECOND: Joi.number().min(0).default(0),
  TEXT_URL: Joi.string()
    .uri({ scheme: ['http', 'https'] })
    .required(),
  TEXT_KEY: Joi.string().min(8).required(),
  TEXT_HOOK_SECRET: Joi.string().min(16).required(),
  INBOUND_SMTP_PORT: Joi.number().integer().min(0).max(65535).default(0),
  INBOUND_HOST: Joi.string().allow('').default(''),
  INBOUND_TLS_CERT: Joi.string().allow('').default(''),
  INBOUND_TLS_KEY: Joi.string().allow('').default(''),
  DKIM_KEY_FILE: Joi.string().allow('').default(''),
  DKIM_DOMAIN: Joi.string().allow('').default(''),
  DKIM_SELECTOR: Joi.string().default('gw'),
  LEASE_SECONDS: Joi.number().min(1).max(3600).default(60),
  POLL_MS: Joi.number().integer().min(10).max(10_000).default(200),
  LOG_LEVEL: Joi.string().valid('fatal', 'error', 'warn', 'info', 'debug', 'trace', 'silent').default('info'),
  COOKIE_SECURE: Joi.boolean().default(false),
  MAILROOM_PAGE: Joi.string().uri().allow('').default(''),
  HANDSETS_PAGE: Joi.string().uri().allow('').default(''),
  DOMAIN_LOOKUP: Joi.alternatives(Joi.string().valid('dns', ''), Joi.string().uri({ scheme: ['http', 'https'] })).default(''),
  ROLL: Joi.string().valid('thread', 'here').default('thread'),
  ROLL_MEGABYTES: Joi.number().integer().min(16).default(512),
  LINE_LOOKUP: Joi.string()
    .uri({ scheme: ['http', 'https'] })
    .allow('')
    .default(''),
});

/** Reads the environment; throws one error that names every wrong value and what was expected of it. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const { value, error } = schema.validate(env, { abortEarly: false, stripUnknown: true });
  if (!error) return value;
  const lines = error.details.map((detail) => `  ${detail.message}`);
  throw new Error(`The configuration is not usable:\n${lines.join('\n')}\nSee .env.example for every setting.`);
}

/** For a process's first line: the configuration, or every wrong value said and an end with EX_CONFIG (sysexits.h). */
export function readConfigOrExit(env: NodeJS.ProcessEnv): Config {
  try {
    return readConfig(env);
  } catch (error) {
    process.stderr.write(`${(error as Error).message}\n`);
    process.exit(78);
  }
}

export const CONFIG = Symbol('CONFIG');
