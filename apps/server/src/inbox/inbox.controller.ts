import { Controller, HttpCode, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import {
  answers,
  schema,
  type AssignThreadBody,
  type HandledBody,
  type PutAsideBody,
  type ReplyFileParams,
  type ThreadsQuery,
  type ThreadsView,
  type ThreadView,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import { sendAsDownload } from '../platform/download';
import type { AccessScope } from '../platform/scope';
import { InboxService } from './inbox.service';

@Controller('api/replies')
export class InboxController {
  constructor(@Inject(InboxService) private readonly inbox: InboxService) {}

  @Route('get', '', {
    role: 'viewer',
    summary: 'What people wrote back, a line for each of them',
    query: schema.threadsQuery,
    answer: answers.threadsView,
  })
  page(@Caller() scope: AccessScope, @Input('query') query: ThreadsQuery): Promise<ThreadsView> {
    return this.inbox.page(scope, query);
  }

  @Route('get', ':id', {
    role: 'viewer',
    summary: 'The thread that a reply belongs to',
    params: schema.idParams,
    answer: answers.threadView,
  })
  thread(@Caller() scope: AccessScope, @Id() id: number): Promise<ThreadView> {
    return this.inbox.thread(scope, id);
  }

  @Route('post', ':id/read', {
    role: 'organizer',
    summary: 'A thread has been read to this reply',
    params: schema.idParams,
  })
  @HttpCode(204)
  read(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.inbox.read(scope, id);
  }

  @Route('post', ':id/handled', {
    role: 'organizer',
    summary: 'A thread is done to this reply, or the reply is open again',
    params: schema.idParams,
    body: schema.handled,
  })
  @HttpCode(204)
  handled(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: HandledBody): Promise<void> {
    return this.inbox.handle(scope, id, body.handled);
  }

  @Route('post', ':id/aside', {
    role: 'organizer',
    summary: 'Put a thread aside until a time, or take it up again',
    params: schema.idParams,
    body: schema.putAside,
  })
  @HttpCode(204)
  aside(@Caller() scope: AccessScope, @Id() id: number, @Input('body') body: PutAsideBody): Promise<void> {
    return this.inbox.putAside(scope, id, body.until);
  }

  @Route('post', ':id/assigned', {
    role: 'organizer',
    summary: 'Say whose a thread is to answer',
    params: schema.idParams,
    body: schema.assignThread,
  })
  @HttpCode(204)
  assign(
    @Caller() scope: AccessScope,
    @Id() id: number,
    @Input('body') body: AssignThreadBody,
  ): Promise<void> {
    return this.inbox.assign(scope, id, body.to);
  }

  @Route('post', ':id/no', {
    role: 'organizer',
    summary: 'Read a reply as opting out of its channel',
    params: schema.idParams,
  })
  @HttpCode(204)
  no(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.inbox.recordNo(scope, id);
  }

  @Route('get', ':id/files/:fileId', {
    role: 'viewer',
    summary: 'A file that came with a reply',
    params: schema.replyFileParams,
  })
  async file(
    @Caller() scope: AccessScope,
    @Input('params') { id, fileId }: ReplyFileParams,
    @Res() response: Response,
  ): Promise<void> {
    sendAsDownload(response, await this.inbox.file(scope, id, fileId));
  }
}
