import { Module } from '@nestjs/common';
import { WordingsRepository } from './wordings.repository';

/** The wordings of a message and how they are compared, as they are kept. */
@Module({ providers: [WordingsRepository], exports: [WordingsRepository] })
export class WordingsModule {}
