import { Module } from '@nestjs/common';
import { APP_INTERCEPTOR } from '@nestjs/core';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { AuditController } from './audit.controller';
import { AuditService } from './audit.service';
import { CommandInterceptor } from './command.interceptor';

/** Who did what: every command of the server runs through it, and it lists them. */
@Module({
  imports: [WorkspacesModule],
  controllers: [AuditController],
  providers: [{ provide: APP_INTERCEPTOR, useClass: CommandInterceptor }, AuditService],
})
export class AuditModule {}
