import { Injectable, type CallHandler, type ExecutionContext, type NestInterceptor } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { map, Observable } from 'rxjs';
import { ROUTE_RULE, type RouteRule } from '../platform/api';
import type { TableWatch } from './rooms';

/**
 * Holds every answer against the schema that its route declares, so that what the API's description says is
 * so, and every call against the tables that its part of the API declares.
 */
@Injectable()
export class AnswerCheck implements NestInterceptor {
  private readonly reflector = new Reflector();

  constructor(private readonly tables: TableWatch) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const rule = this.reflector.get<RouteRule | undefined>(ROUTE_RULE, context.getHandler());
    const where = `${context.getClass().name}.${context.getHandler().name}`;
    const { method, route } = context
      .switchToHttp()
      .getRequest<{ method: string; route: { path: string } }>();
    return new Observable<unknown>((subscriber) =>
      this.tables.during(method, route.path, () => next.handle().subscribe(subscriber)),
    ).pipe(
      map((answer: unknown) => {
        const fault = rule && faultOf(rule, answer);
        if (!fault) return answer;
        const words = `expected the answer that ${where} declares: ${fault}`;
        this.tables.faults.add(words);
        throw new Error(words);
      }),
    );
  }
}

function faultOf(rule: RouteRule, answer: unknown): string | undefined {
  if (!rule.answer) return answer === undefined ? undefined : 'it declares none';
  if (answer === undefined) return 'it gave none';
  const sent: unknown = JSON.parse(JSON.stringify(answer));
  return rule.answer.validate(sent, { convert: false, presence: 'optional' }).error?.message;
}
