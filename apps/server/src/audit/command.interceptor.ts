import { Inject, Injectable, type CallHandler, type ExecutionContext, type NestInterceptor } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Permission } from '@haycart/api';
import { defer, from, lastValueFrom, mergeMap, type Observable } from 'rxjs';
import { COMMAND, PERMISSION, type CommandMark, type CommandRequest } from '../platform/commands/command';
import { RunningCommand } from '../platform/commands/running-command';
import { Database } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { AuditService } from './audit.service';
import { refuseWithout } from './permissions';

/** The parts of an address that say what a command is done to, the nearest first. */
const SUBJECTS = ['case', 'comparison', 'one', 'note', 'task', 'key', 'host', 'team', 'id'];

/**
 * Lets through what somebody may do, and runs every command: in one transaction that has its line of the audit too, and
 * told once it is committed.
 */
@Injectable()
export class CommandInterceptor implements NestInterceptor {
  constructor(
    @Inject(Reflector) private readonly reflector: Reflector,
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const mark = this.reflector.get<CommandMark | undefined>(COMMAND, context.getHandler());
    const permission = this.reflector.get<Permission | undefined>(PERMISSION, context.getHandler());
    const request = context.switchToHttp().getRequest<CommandRequest>();
    const { caller = null } = request;
    if (caller && permission) refuseWithout(permission, caller);
    if (!mark) return next.handle();
    const command = new RunningCommand(mark, caller, subjectOf(request.params), (...line) => this.audit.keep(...line));
    request.command = command;
    if (mark.takesLong) return next.handle().pipe(mergeMap((answer) => from(noted(command, answer))));
    if (!caller) throw new Error(`Nobody is signed in for the command ${mark.name}.`);
    return defer(() =>
      this.database.inWorkspace(caller.workspaceId, async (tx) => {
        command.runsIn(tx);
        const answer = await lastValueFrom(next.handle(), { defaultValue: undefined });
        if (!command.isNoted) await command.note(tx, answer);
        if (mark.tells.length) await this.events.tell(tx, ...mark.tells);
        return answer as unknown;
      }),
    );
  }
}

/** @throws Error where a command that takes long has left no line. */
async function noted(command: RunningCommand, answer: unknown): Promise<unknown> {
  if (!command.isNoted) throw new Error(`The command ${command.mark.name} left no line in the audit.`);
  return Promise.resolve(answer);
}

function subjectOf(params: unknown): string | null {
  const named = (params ?? {}) as Record<string, string>;
  const part = SUBJECTS.find((name) => named[name] !== undefined);
  return part ? named[part]! : null;
}
