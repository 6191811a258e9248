/**
 * The settings of a deployment: the environment, and `.env` (or the file that ENV_FILE names) for what is not
 * set there.
 */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, stop } from './prepare.mjs';

export async function readSettings() {
  const { config } = await import('dotenv');
  const file = process.env.ENV_FILE ?? join(ROOT, '.env');
  if (existsSync(file)) config({ path: file, quiet: true });
  else if (process.env.ENV_FILE) stop(`ENV_FILE names ${file}, which is not there.`);
}

/**
 * How MariaDB's own programs reach the database: arguments, and a password that stands in no list of
 * processes.
 */
export function databaseOf(address) {
  if (!address) stop('DATABASE_URL is not set. It stands in .env, or in the environment.');
  const url = new URL(address);
  const name = url.pathname.slice(1);
  const args = [
    '--no-defaults',
    '--protocol=tcp',
    `--host=${url.hostname}`,
    `--port=${url.port || 3306}`,
    `--user=${decodeURIComponent(url.username)}`,
  ];
  return {
    name,
    args: [...args, '--default-character-set=utf8mb4'],
    env: { ...process.env, MYSQL_PWD: decodeURIComponent(url.password) },
  };
}
