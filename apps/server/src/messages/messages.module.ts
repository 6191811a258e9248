import { WordingsModule } from '../wordings/wordings.module';
import { FormsModule } from '../forms/forms.module';
import { Module } from '@nestjs/common';
import { PermissionModule } from '../permission/permission.module';
import { RecordModule } from '../record/record.module';
import { SegmentsModule } from '../segments/segments.module';
import { SupportersModule } from '../supporters/supporters.module';
import { TeamModule } from '../team/team.module';
import { AskService } from './ask.service';
import { ComposingService } from './composing.service';
import { ImagesService } from './images.service';
import { MergeValuesRepository } from './merge-values.repository';
import { MessagesController } from './messages.controller';
import { MessagesRepository } from './messages.repository';
import { MessagesService } from './messages.service';
import { LetterCheckService } from './letter-check.service';
import { MergeRegistryService } from './merge-registry.service';
import { MessageValuesService } from './message-values.service';
import { GoService } from './go.service';
import { TogetherController } from './together.controller';
import { WordNotesRepository } from './word-notes.repository';
import { WordNotesService } from './word-notes.service';
import { OwnHtmlController } from './own-html/own-html.controller';
import { OwnHtmlService } from './own-html/own-html.service';
import { PersonalLinksService } from './personal-links.service';
import { PictureLibraryService } from './picture-library.service';
import { PreviewService } from './preview.service';
import { PublicListService } from './public-list.service';
import { SaidService } from './said.service';
import { TagTriggersService } from './tag-triggers.service';
import { TemplatesController } from './templates.controller';
import { TemplatesRepository } from './templates.repository';
import { TemplatesService } from './templates.service';
import { WordVersionsRepository } from './word-versions.repository';
import { WordVersionsService } from './word-versions.service';

@Module({
  imports: [
    WordingsModule,
    FormsModule,
    PermissionModule,
    RecordModule,
    SegmentsModule,
    SupportersModule,
    TeamModule,
  ],
  controllers: [MessagesController, OwnHtmlController, TemplatesController, TogetherController],
  providers: [
    MessagesService,
    MessagesRepository,
    ComposingService,
    MergeValuesRepository,
    ImagesService,
    OwnHtmlService,
    GoService,
    WordNotesRepository,
    WordNotesService,
    TagTriggersService,
    AskService,
    LetterCheckService,
    MergeRegistryService,
    MessageValuesService,
    PersonalLinksService,
    PictureLibraryService,
    PreviewService,
    PublicListService,
    SaidService,
    TemplatesRepository,
    TemplatesService,
    WordVersionsRepository,
    WordVersionsService,
  ],
  exports: [
    PersonalLinksService,
    LetterCheckService,
    MergeRegistryService,
    MessageValuesService,
    ImagesService,
    TemplatesRepository,
    MessagesService,
    MessagesRepository,
    ComposingService,
    MergeValuesRepository,
    SaidService,
    TagTriggersService,
  ],
})
export class MessagesModule {}
