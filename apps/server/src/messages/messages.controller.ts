import { Body, Controller, HttpCode, Inject, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import type { Response } from 'express';
import {
  schema,
  type ChangeImageBody,
  type CheckedWords,
  type ImageView,
  type MessageView,
  type Preview,
  type SavedWords,
  answers,
  type MakeMessageBody,
  type SaveMessageBody,
  type SaveTagTriggersBody,
  type PreviewQuery,
} from '@goodword/core/contract';
import type { MergeName } from '@goodword/core/merge';
import { Caller, Id, Input, Route } from '../platform/api';
import { Invalid } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { MergeRegistryService } from './merge-registry.service';
import { IMAGE_LIMITS, ImagesService } from './images.service';
import { PictureLibraryService } from './picture-library.service';
import { MessagesService } from './messages.service';
import { TagTriggersService } from './tag-triggers.service';

@Controller()
export class MessagesController {
  constructor(
    @Inject(MessagesService) private readonly messages: MessagesService,
    @Inject(ImagesService) private readonly images: ImagesService,
    @Inject(PictureLibraryService) private readonly library: PictureLibraryService,
    @Inject(MergeRegistryService) private readonly registry: MergeRegistryService,
    @Inject(TagTriggersService) private readonly tagTriggers: TagTriggersService,
  ) {}

  @Route('get', 'api/messages', {
    role: 'viewer',
    summary: 'Messages, last changed first',
    answer: answers.listOf(answers.messageShown),
  })
  list(@Caller() scope: AccessScope): Promise<MessageView[]> {
    return this.messages.list(scope);
  }

  @Route('post', 'api/messages', {
    role: 'writer',
    summary: 'Begin a message',
    body: schema.makeMessage,
    answer: answers.made,
  })
  make(@Caller() scope: AccessScope, @Input('body') body: MakeMessageBody): Promise<{ id: number }> {
    return this.messages.make(scope, body);
  }

  @Route('get', 'api/messages/:id', {
    role: 'viewer',
    summary: 'One message',
    params: schema.idParams,
    answer: answers.messageShown,
  })
  show(@Caller() scope: AccessScope, @Id() id: number): Promise<MessageView> {
    return this.messages.show(scope, id);
  }

  @Route('put', 'api/messages/:id', {
    role: 'writer',
    summary: 'Save the words of a draft',
    params: schema.idParams,
    body: schema.saveMessage,
    answer: answers.savedWords,
  })
  save(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: SaveMessageBody,
  ): Promise<SavedWords> {
    return this.messages.save(scope, id, body);
  }

  @Route('put', 'api/messages/:id/tag-triggers', {
    role: 'organizer',
    summary: 'Tags for whoever clicks a link in it, or replies to it',
    params: schema.idParams,
    body: schema.saveTagTriggers,
  })
  @HttpCode(204)
  tag(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: SaveTagTriggersBody,
  ): Promise<void> {
    return this.tagTriggers.save(scope, id, body.tagTriggers, body.was);
  }

  @Route('post', 'api/messages/:id/copy', {
    role: 'writer',
    summary: 'Use its words again, in a draft for a group yet to be chosen',
    params: schema.idParams,
    answer: answers.made,
  })
  copy(@Caller() scope: AccessScope, @Id() id: number): Promise<{ id: number }> {
    return this.messages.copy(scope, id);
  }

  @Route('delete', 'api/messages/:id', { role: 'writer', summary: 'Delete a draft', params: schema.idParams })
  @HttpCode(204)
  remove(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.messages.remove(scope, id);
  }

  @Route('get', 'api/messages/:id/faults', {
    role: 'viewer',
    summary: 'What is wrong with it',
    params: schema.idParams,
    answer: answers.checkedWords,
  })
  faults(@Caller() scope: AccessScope, @Id() id: number): Promise<CheckedWords> {
    return this.messages.checked(scope, id);
  }

  @Route('get', 'api/messages/:id/preview', {
    role: 'viewer',
    summary: 'As one supporter will get it',
    params: schema.idParams,
    query: schema.previewQuery,
    answer: answers.preview,
  })
  preview(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('query') query: PreviewQuery,
  ): Promise<Preview> {
    return this.messages.preview(scope, id, query.supporterId);
  }

  @Route('get', 'api/merge-fields', {
    role: 'viewer',
    summary: 'Merge fields that can be written',
    answer: answers.listOf(answers.mergeName),
  })
  async mergeFields(@Caller() scope: AccessScope): Promise<readonly MergeName[]> {
    return (await this.registry.of(scope)).names;
  }

  @Route('get', 'api/images', {
    role: 'viewer',
    summary: 'The picture library',
    answer: answers.listOf(answers.imageView),
  })
  pictures(@Caller() scope: AccessScope): Promise<ImageView[]> {
    return this.library.list(scope);
  }

  @Route('put', 'api/images/:id', {
    role: 'writer',
    summary: 'Change what a picture is called, what is on it and where it lies',
    params: schema.idParams,
    body: schema.changeImage,
  })
  @HttpCode(204)
  changePicture(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: ChangeImageBody,
  ): Promise<void> {
    return this.library.change(scope, id, body);
  }

  @Route('delete', 'api/images/:id', {
    role: 'writer',
    summary: 'Delete a picture that nothing needs which has not left',
    params: schema.idParams,
  })
  @HttpCode(204)
  removePicture(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.library.remove(scope, id);
  }

  @Route('post', 'api/images', {
    role: 'writer',
    summary: 'Add a picture (multipart: file, alt)',
    answer: answers.made,
  })
  @UseInterceptors(FileInterceptor('file', { limits: { fileSize: IMAGE_LIMITS.bytes, files: 1, fields: 2 } }))
  async addPicture(
    @Caller() scope: AccessScope,
    @UploadedFile() file: Express.Multer.File | undefined,
    @Body('alt') alt: unknown,
  ): Promise<{ id: number }> {
    if (!file) throw new Invalid([{ field: 'file', code: 'missing', message: 'Choose a picture.' }]);
    return this.images.add(
      scope,
      { name: Buffer.from(file.originalname, 'latin1').toString('utf8'), bytes: file.buffer },
      typeof alt === 'string' ? alt.slice(0, 300) : '',
    );
  }

  @Route('get', 'media/:id', { role: 'anyone', summary: 'A picture of the library', params: schema.idParams })
  async media(@Id() id: number, @Res() response: Response): Promise<void> {
    this.picture(response, await this.images.read(id));
  }

  @Route('get', 'media/:id/:width', {
    role: 'anyone',
    summary: 'A picture of the library, not wider than this (in steps of 100)',
    params: schema.mediaParams,
  })
  async sized(
    @Input('params') { id, width }: { id: number; width: number },
    @Res() response: Response,
  ): Promise<void> {
    this.picture(response, await this.images.read(id, width));
  }

  private picture(response: Response, { bytes, mime }: { bytes: Buffer; mime: string }): void {
    response
      .type(mime)
      .set('cache-control', 'public, max-age=31536000, immutable')
      .set('cross-origin-resource-policy', 'cross-origin')
      .send(bytes);
  }
}
