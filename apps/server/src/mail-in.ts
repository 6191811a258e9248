import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import { Logger } from 'nestjs-pino';
import { AppModule } from './app.module';
import { MailInService } from './inbound/mail-in.service';
import { SmppInService } from './inbound/smpp-in.service';
import { readConfigOrExit } from './platform/config';
import { isSmpp, smppPlaceOf } from './platform/smpp-session';

/**
 * The process that hears what is mailed back, and what a gateway over SMPP tells: whatever is sent to it,
 * pages and sending go on.
 */
async function main(): Promise<void> {
  // Whatever is written is for this user alone.
  process.umask(0o077);
  const config = readConfigOrExit(process.env);
  const context = await NestFactory.createApplicationContext(AppModule.with(config), { bufferLogs: true });
  context.useLogger(context.get(Logger));
  context.enableShutdownHooks();
  if (config.INBOUND_SMTP_PORT > 0)
    context.get(MailInService).listen(config.INBOUND_SMTP_PORT, config.INBOUND_HOST || config.HOST);
  if (isSmpp(config.TEXT_URL)) void context.get(SmppInService).listen(smppPlaceOf(config.TEXT_URL));
}

void main();
