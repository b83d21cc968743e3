import { applyDecorators, createParamDecorator, SetMetadata, type ExecutionContext } from '@nestjs/common';
import { ApiExtension, ApiOperation } from '@nestjs/swagger';
import type { EventTopic, Permission } from '@haycart/api';
import type { RequestWithCaller } from '../auth/caller';
import type { WorkspaceTx } from '../database/database';
import { inThePast } from './past';
import type { RunningCommand } from './running-command';

export const COMMAND = 'haycart:command';
export const PERMISSION = 'haycart:permission';

/** The permission that a command needs, and what it does, as `routes.publish`. */
export type CommandName = `${Permission}.${string}`;

export interface CommandMark {
  name: CommandName;
  /** What it did, in a line of the audit: “Published a route”. */
  done: string;
  /** What changes by it: told once it is committed. */
  tells: readonly EventTopic[];
  /** One line for as long as somebody goes on with the same thing, such as a draft that is saved as it is typed. */
  goesOn: boolean;
  /** It takes long before it writes, so that it opens its transaction by itself and notes its line there. */
  takesLong: boolean;
}

export type CommandOptions = Partial<Omit<CommandMark, 'name' | 'done'>>;

/**
 * Marks what changes data on behalf of somebody. It is authorised, runs in one transaction of the caller's workspace
 * (`@InTransaction()`), and leaves a line of the audit in it; see `CommandInterceptor`.
 */
export function Command(
  name: CommandName,
  summary: string,
  { tells = [], goesOn = false, takesLong = false }: CommandOptions = {},
): MethodDecorator {
  const mark: CommandMark = { name, done: inThePast(summary), tells, goesOn, takesLong };
  return applyDecorators(
    SetMetadata(COMMAND, mark),
    ApiExtension('x-command', name),
    Reads(name.slice(0, name.indexOf('.')) as Permission, summary),
  );
}

/** Marks what reads on behalf of somebody, with the permission that it needs. */
export function Reads(permission: Permission, summary: string): MethodDecorator {
  return applyDecorators(
    SetMetadata(PERMISSION, permission),
    ApiOperation({ summary }),
    ApiExtension('x-permission', permission),
  );
}

/** Marks a call that changes nothing although it is no GET, since what it asks takes a body: it leaves no line. */
export function Asks(permission: Permission, summary: string): MethodDecorator {
  return applyDecorators(Reads(permission, summary), ApiExtension('x-changes-nothing', true));
}

/** Marks what anybody may call, signed in or not, and what no command is. */
export function Open(summary: string): MethodDecorator {
  return applyDecorators(ApiOperation({ summary }), ApiExtension('x-changes-nothing', true));
}

export type CommandRequest = RequestWithCaller & { command?: RunningCommand };

const commandOf = (context: ExecutionContext) => context.switchToHttp().getRequest<CommandRequest>().command!;

/** Hands a command's method the transaction that it runs in. */
export const InTransaction = createParamDecorator(
  (_: unknown, context: ExecutionContext): WorkspaceTx => commandOf(context).tx,
);

/** Hands a command's method the command, so that it says what it did, or notes its line where it takes long. */
export const ThisCommand = createParamDecorator((_: unknown, context: ExecutionContext): RunningCommand =>
  commandOf(context),
);
