import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Patch, Post, Put } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { WorkingHours } from '@haycart/core';
import type { ChannelShape, TextGatewayShape } from '@haycart/api';
import { IsIn, IsObject, IsOptional, IsString, Length, ValidateIf } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads, ThisCommand } from '../platform/commands/command';
import type { RunningCommand } from '../platform/commands/running-command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { newId } from '../platform/new-id';
import { ChannelsService } from './channels.service';
import { MessagesService } from './messages.service';
import { PerMinute } from './per-minute';

const unlessAbsent = ValidateIf((_, value) => value !== undefined);

/** How a channel is reached, and when. */
class ReachedDto {
  @ApiPropertyOptional({ description: 'Where a chat is posted to' })
  @IsOptional()
  @IsString()
  @Length(1, 2_000)
  address?: string;
  @ApiPropertyOptional({ description: 'Of a phone, with its country' })
  @IsOptional()
  @IsString()
  @Length(1, 40)
  number?: string;
  @ApiPropertyOptional({ nullable: true, type: String, description: 'IANA name: where its hours are read' })
  @IsOptional()
  @IsString()
  @Length(1, 60)
  timeZone?: string | null;
  @ApiPropertyOptional({
    description: 'When somebody reads it, by day of the week: {"mon": {"from": "09:00", "to": "17:00"}}',
  })
  @unlessAbsent
  @IsObject()
  hours?: WorkingHours;
  @PerMinute() perMinute?: number | null;
}

class ChannelChangeDto extends ReachedDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 80) name?: string;
}

class NewChannelDto extends ReachedDto {
  @ApiProperty() @IsString() @Length(1, 80) name: string;
  @ApiProperty({ enum: ['chat', 'text'] }) @IsIn(['chat', 'text']) by: 'chat' | 'text';
}

class TextGatewayDto {
  @ApiProperty({ nullable: true, type: String, description: 'Where text messages are posted to; null for none' })
  @ValidateIf((_, value) => value !== null)
  @IsString()
  @Length(1, 2_000)
  address: string | null;
}

/** Where messages go that are for no one person. */
@ApiTags('channels')
@Controller('api/v1')
export class ChannelsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ChannelsService) private readonly channels: ChannelsService,
    @Inject(MessagesService) private readonly messages: MessagesService,
  ) {}

  @Get('channels')
  @Reads('channels', 'Lists channels')
  all(@ByCaller() { workspaceId }: Caller): Promise<ChannelShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.channels.all(tx));
  }

  @Post('channels')
  @Command('channels.add', 'Adds a channel')
  @HttpCode(201)
  add(@InTransaction() tx: WorkspaceTx, @Body() made: NewChannelDto): Promise<ChannelShape> {
    return this.channels.add(tx, made);
  }

  @Patch('channels/:key')
  @Command('channels.change', 'Changes a channel')
  change(
    @InTransaction() tx: WorkspaceTx,
    @Param('key') key: string,
    @Body() change: ChannelChangeDto,
  ): Promise<ChannelShape> {
    return this.channels.change(tx, key, change);
  }

  @Delete('channels/:key')
  @Command('channels.remove', 'Removes a channel')
  @HttpCode(204)
  remove(@InTransaction() tx: WorkspaceTx, @Param('key') key: string): Promise<void> {
    return this.channels.remove(tx, key);
  }

  /** Sends a message at once, to see that it comes. */
  @Post('channels/:key/test')
  @Command('channels.test', 'Sends a test message', { takesLong: true })
  @HttpCode(204)
  async test(
    @ThisCommand() command: RunningCommand,
    @ByCaller() { workspaceId }: Caller,
    @Param('key') channel: string,
  ): Promise<void> {
    await this.database.inWorkspace(workspaceId, async (tx) => {
      if (!(await this.channels.reached(tx, channel)))
        throw new ProblemError('not-found', `There is no channel “${channel.slice(0, 60)}”.`);
      await command.note(tx, { id: channel, name: channel });
    });
    const tried = await this.messages.send(
      workspaceId,
      { to: { channel }, text: 'A test message from Hay Cart.', key: newId() },
      AbortSignal.timeout(60_000),
    );
    if (!tried.ok) throw new ProblemError('refused', `It did not come: ${tried.why}`);
  }

  @Get('text-gateway')
  @Reads('channels', 'Says what sends text messages')
  gateway(@ByCaller() { workspaceId }: Caller): Promise<TextGatewayShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.channels.gateway(tx));
  }

  @Put('text-gateway')
  @Command('channels.set-text-gateway', 'Sets what sends text messages')
  setGateway(@InTransaction() tx: WorkspaceTx, @Body() { address }: TextGatewayDto): Promise<TextGatewayShape> {
    return this.channels.setGateway(tx, address);
  }
}
