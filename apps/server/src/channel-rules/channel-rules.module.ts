import { Module } from '@nestjs/common';
import { ChannelRulesService } from './channel-rules.service';

/** How channels are told apart. */
@Module({ providers: [ChannelRulesService], exports: [ChannelRulesService] })
export class ChannelRulesModule {}
