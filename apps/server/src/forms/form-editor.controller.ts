import { Body, Controller, Get, HttpCode, Inject, Param, ParseIntPipe, Post, Put, Query, Req } from '@nestjs/common';
import { ApiConsumes, ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import { figuresBy, figuresOf, formFunnel, LIMITS, stopsOf, type FormRouteWish, type JsonObject } from '@haycart/core';
import type { FormFiguresShape, FormMonth, FormShape, IntakeShape, PictureShape, ThemeShape } from '@haycart/api';
import { Type } from 'class-transformer';
import { IsInt, IsNumber, IsObject, IsOptional, IsString, Length, Max, Min } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Asks, Command, InTransaction, Reads, ThisCommand } from '../platform/commands/command';
import type { RunningCommand } from '../platform/commands/running-command';
import type { FastifyRequest } from 'fastify';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { receiveFile } from '../platform/receive-file';
import { PeopleService } from '../workspaces/people.service';
import { formOutcome } from './form-outcome';
import { FormTrials } from './form-trials.service';
import { FormCounts } from './form-counts.service';
import { FormPages } from './form-pages.service';
import { FormsService, readForm } from './forms.service';
import { FormPictures } from './pictures/form-pictures.service';
import { readWish } from './route-wish';
import { ThemesService } from './themes.service';

class NewFormDto {
  @ApiProperty() @IsString() @Length(1, 120) name: string;
  @ApiPropertyOptional({ description: 'A form definition' }) @IsOptional() @IsObject() form?: object;
  @ApiPropertyOptional({ description: 'The key of a form to copy' }) @IsOptional() @IsString() copyOf?: string;
}

class DraftDto {
  @ApiProperty() @IsObject() form: object;
  @ApiProperty() @IsInt() revision: number;
}

class PreviewDto {
  @ApiProperty() @IsObject() form: object;
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(2, 35) language?: string;
}

class PublishFormDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(0, 500) note?: string;
  @ApiPropertyOptional({ description: 'Where what the form brings goes, if its route is to be made' })
  @IsOptional()
  @IsObject()
  route?: object;
  @ApiPropertyOptional({
    description: 'How many of the visitors see it, while the others go on with the version before',
  })
  @IsOptional()
  @IsNumber()
  @Min(0.01)
  @Max(0.99)
  share?: number;
}

class EndTrialDto {
  @ApiProperty({ description: 'The version that everybody sees from now on' }) @IsInt() keep: number;
}

class FiguresQueryDto {
  @ApiPropertyOptional() @IsOptional() @Type(() => Number) @IsInt() @Min(1) @Max(400) days?: number;
}

class NewThemeDto {
  @ApiProperty() @IsString() @Length(1, 120) name: string;
  @ApiProperty() @IsObject() theme: object;
}

class ThemeDto {
  @ApiProperty() @IsObject() theme: object;
}

/** Building forms. */
@ApiTags('forms')
@Controller('api/v1')
export class FormEditorController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FormsService) private readonly forms: FormsService,
    @Inject(ThemesService) private readonly themes: ThemesService,
    @Inject(FormPages) private readonly pages: FormPages,
    @Inject(FormCounts) private readonly counts: FormCounts,
    @Inject(FormTrials) private readonly trials: FormTrials,
    @Inject(FormPictures) private readonly pictures: FormPictures,
    @Inject(PeopleService) private readonly people: PeopleService,
  ) {}

  @Post('forms')
  @Command('forms.add', 'Makes a form')
  @HttpCode(201)
  add(@InTransaction() tx: WorkspaceTx, @Body() { name, form, copyOf }: NewFormDto): Promise<IntakeShape> {
    return copyOf ? this.forms.copy(tx, copyOf, name) : this.forms.add(tx, name, readForm(form));
  }

  @Get('forms/:id')
  @Reads('forms', 'Shows a form with its draft and versions')
  one(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<FormShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.forms.one(tx, id));
  }

  /** Made-up answers to what an intake asks, to try a route on before anything came; `null` where it asks nothing. */
  @Get('intakes/:key/example')
  @Reads('intakes', 'Makes up answers to what an intake asks')
  example(@ByCaller() { workspaceId }: Caller, @Param('key') key: string): Promise<{ payload: JsonObject | null }> {
    return this.database.inWorkspace(workspaceId, (tx) => this.forms.example(tx, key));
  }

  /** What visitors did at each form in the last 30 days. */
  @Get('form-months')
  @Reads('forms', 'Counts what visitors did at each form in 30 days')
  months(@ByCaller() { workspaceId }: Caller): Promise<FormMonth[]> {
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const months = await this.counts.month(tx);
      return (await this.forms.all(tx)).flatMap(({ id, key }) => {
        const month = months.get(id);
        return month ? [{ key, ...month }] : [];
      });
    });
  }

  /** What happened at a form in the last days: whole, by part of its visitors, and where people stopped. */
  @Get('forms/:id/figures')
  @Reads('forms', 'Tells what happened at a form in the last days')
  async figures(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Query() { days = 30 }: FiguresQueryDto,
  ): Promise<FormFiguresShape> {
    await this.counts.flush();
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const { intake, draft } = await this.forms.one(tx, id);
      const tallies = await this.counts.tallies(tx, intake.id, days);
      return {
        whole: figuresOf(tallies),
        byVersion: figuresBy(tallies, 'version'),
        byPage: figuresBy(tallies, 'page').slice(0, 50),
        bySource: figuresBy(tallies, 'source').slice(0, 50),
        byDevice: figuresBy(tallies, 'device'),
        stops: stopsOf(tallies),
        steps: formFunnel(tallies, intake.form ?? draft, await formOutcome(tx, intake.id, days)),
        trial: await this.trials.figures(tx, intake),
      };
    });
  }

  @Put('forms/:id/draft')
  @Command('forms.save-draft', 'Saves the draft of a form', { goesOn: true })
  saveDraft(
    @InTransaction() tx: WorkspaceTx,
    @Param('id') id: string,
    @Body() { form, revision }: DraftDto,
  ): Promise<FormShape> {
    return this.forms.saveDraft(tx, id, form, revision);
  }

  /** The real page of a form that is not published, for the editor. Sending it keeps nothing. */
  @Post('forms/preview')
  @Asks('forms', 'Shows a form as it would be')
  @HttpCode(200)
  async preview(
    @ByCaller() { workspaceId }: Caller,
    @Body() { form, language }: PreviewDto,
  ): Promise<{ page: string }> {
    const page = await this.database.inWorkspace(workspaceId, (tx) => this.pages.preview(tx, readForm(form), language));
    return { page };
  }

  /** Keeps a picture for forms: PNG, JPEG, GIF or WebP, at most 2 MiB. */
  @Post('form-pictures')
  @Command('forms.add-picture', 'Brings a picture for forms in', { takesLong: true })
  @HttpCode(201)
  @ApiConsumes('multipart/form-data')
  async addPicture(
    @ThisCommand() command: RunningCommand,
    @ByCaller() { workspaceId, by }: Caller,
    @Req() request: FastifyRequest,
  ): Promise<PictureShape> {
    const { bytes } = await receiveFile(request, LIMITS.formPicture.most);
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const address = await this.pictures.keep(tx, bytes, await this.people.nameOf(tx, by));
      await command.note(tx);
      return { address };
    });
  }

  @Post('forms/:id/publish')
  @Command('forms.publish', 'Publishes a form', { takesLong: true })
  @HttpCode(200)
  async publish(
    @ThisCommand() command: RunningCommand,
    @ByCaller() { workspaceId, by }: Caller,
    @Param('id') id: string,
    @Body() { note, route, share }: PublishFormDto,
  ): Promise<{ version: number; route: string | null }> {
    const wish: FormRouteWish | null = route ? readWish(route) : null;
    if (share !== undefined) await this.counts.flush();
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const wanted = { note: note ?? null, route: wish, share };
      const published = await this.forms.publish(tx, id, await this.people.nameOf(tx, by), wanted);
      await command.note(tx);
      return published;
    });
  }

  @Post('forms/:id/trial/end')
  @Command('forms.end-trial', 'Ends the trial of two versions of a form')
  @HttpCode(200)
  async endTrial(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('id') id: string,
    @Body() { keep }: EndTrialDto,
  ): Promise<{ version: number }> {
    return this.forms.endTrial(tx, id, keep, await this.people.nameOf(tx, by));
  }

  @Post('forms/:id/versions/:version/restore')
  @Command('forms.restore', 'Takes up an earlier version of a form')
  @HttpCode(200)
  restore(
    @InTransaction() tx: WorkspaceTx,
    @Param('id') id: string,
    @Param('version', ParseIntPipe) version: number,
  ): Promise<FormShape> {
    return this.forms.restore(tx, id, version);
  }

  @Get('themes')
  @Reads('forms', 'Lists the themes of forms')
  allThemes(@ByCaller() { workspaceId }: Caller): Promise<ThemeShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.themes.all(tx));
  }

  @Post('themes')
  @Command('forms.add-theme', 'Makes a theme for forms')
  @HttpCode(201)
  addTheme(@InTransaction() tx: WorkspaceTx, @Body() { name, theme }: NewThemeDto): Promise<ThemeShape> {
    return this.themes.add(tx, name, theme);
  }

  @Put('themes/:key')
  @Command('forms.change-theme', 'Changes a theme of forms')
  @HttpCode(204)
  changeTheme(@InTransaction() tx: WorkspaceTx, @Param('key') key: string, @Body() { theme }: ThemeDto): Promise<void> {
    return this.themes.change(tx, key, theme);
  }
}
