import { Inject, Injectable } from '@nestjs/common';
import { withChoices, type Destination, type FieldDefinition } from '@haycart/core';
import { CampaignsService } from '../campaigns/campaigns.service';
import { ChannelRulesService } from '../channel-rules/channel-rules.service';
import { IntakesService } from '../intakes/intakes.service';
import { ChannelsService } from '../messaging/channels.service';
import { MailFiles } from '../messaging/mail/mail-files.service';
import { MailTemplates } from '../messaging/mail/mail-templates.service';
import { FieldsService } from '../fields/fields.service';
import { RecognitionService } from '../recognition/recognition.service';
import { LabelsService } from '../labels/labels.service';
import { PipelinesService } from '../pipelines/pipelines.service';
import type { WorkspaceTx } from '../platform/database/database';
import { ValueSetsService } from '../value-sets/value-sets.service';
import { PeopleService } from '../workspaces/people.service';
import { RatesService } from '../workspaces/rates.service';

type Defaults = Pick<Destination, 'defaultCountry' | 'defaultCurrency' | 'leadHandling' | 'dealWord'>;
type Current = Defaults & { revision: number; unchanged: boolean };

/** What a workspace has prepared for its records, put together from its pipelines, fields, people, labels and defaults. */
@Injectable()
export class DestinationService {
  readonly #kept = new Map<string, { revision: number; destination: Destination }>();

  constructor(
    @Inject(CampaignsService) private readonly campaigns: CampaignsService,
    @Inject(ChannelRulesService) private readonly channelRules: ChannelRulesService,
    @Inject(ChannelsService) private readonly channels: ChannelsService,
    @Inject(MailFiles) private readonly files: MailFiles,
    @Inject(MailTemplates) private readonly templates: MailTemplates,
    @Inject(FieldsService) private readonly fields: FieldsService,
    @Inject(IntakesService) private readonly intakes: IntakesService,
    @Inject(LabelsService) private readonly labels: LabelsService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(PipelinesService) private readonly pipelines: PipelinesService,
    @Inject(RatesService) private readonly rates: RatesService,
    @Inject(RecognitionService) private readonly recognition: RecognitionService,
    @Inject(ValueSetsService) private readonly valueSets: ValueSetsService,
  ) {}

  /** One round trip while nothing of it has changed. */
  async load(tx: WorkspaceTx): Promise<Destination> {
    const [current] = await tx.statement<Current>(
      'destination_current',
      `select revision, pg_current_xact_id_if_assigned() is null as unchanged, default_country as "defaultCountry",
         default_currency as "defaultCurrency", lead_handling as "leadHandling", deal_word as "dealWord" from workspace where id = $1`,
      [tx.workspaceId],
    );
    const { revision, unchanged, ...defaults } = current!;
    const kept = this.#kept.get(tx.workspaceId);
    if (kept?.revision === revision) return kept.destination;
    const destination = await this.#read(tx, defaults);
    // Only what is committed is kept: a change under way may yet be undone, and its revision be another's.
    if (unchanged) this.#kept.set(tx.workspaceId, { revision, destination });
    return destination;
  }

  /** The destination as it is at a revision, if that is the one in memory. */
  kept(workspaceId: string, revision: number): Destination | undefined {
    const kept = this.#kept.get(workspaceId);
    return kept?.revision === revision ? kept.destination : undefined;
  }

  /** Fields with everything that can be chosen in them. */
  async chosen<Field extends FieldDefinition>(tx: WorkspaceTx, fields: readonly Field[]): Promise<Field[]> {
    return withChoices(fields, {
      people: await this.people.choices(tx),
      tags: await this.labels.options(tx, 'tag'),
      lists: await this.labels.options(tx, 'list'),
    });
  }

  async #read(tx: WorkspaceTx, defaults: Defaults): Promise<Destination> {
    return {
      ...defaults,
      fields: await this.chosen(tx, await this.fields.all(tx)),
      pipelines: await this.pipelines.all(tx),
      rates: await this.rates.all(tx),
      teams: await this.people.teams(tx),
      people: await this.people.known(tx),
      channels: await this.channels.named(tx),
      templates: await this.templates.all(tx),
      files: await this.files.all(tx),
      valueSets: await this.valueSets.named(tx),
      channelRules: await this.channelRules.rules(tx),
      intakeSources: await this.intakes.sources(tx),
      campaignCodes: await this.campaigns.codes(tx),
      ...(await this.recognition.forDestination(tx)),
    };
  }
}
