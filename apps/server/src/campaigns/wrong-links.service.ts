import { createHash } from 'node:crypto';
import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import {
  CAMPAIGN_PARAMETERS,
  checkLink,
  plainName,
  type CampaignCodes,
  type LinkParameters,
  type LinkRules,
  type Way,
} from '@haycart/core';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { AfterChanges } from '../platform/jobs/after-changes';
import { CampaignsService } from './campaigns.service';
import { LinkRulesService } from './link-rules.service';
import { sameLink } from './same-link-sql';

/** A link that brought a visit and breaks the link rules. */
export interface WrongLink {
  id: string;
  parameters: LinkParameters;
  problems: string[];
  unknownCampaign: boolean;
  /** When it was found. */
  at: Date;
  /** The number of submissions that came by it. */
  submissions: number;
}

const REST_SECONDS = 5;
const AT_ONCE = 2_000;

/** Checks the links that bring visits against the link rules, once a workspace has campaigns. */
@Injectable()
export class WrongLinks implements OnModuleInit {
  constructor(
    @Inject(AfterChanges) private readonly after: AfterChanges,
    @Inject(CampaignsService) private readonly campaigns: CampaignsService,
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
    @Inject(LinkRulesService) private readonly rules: LinkRulesService,
  ) {}

  onModuleInit(): void {
    this.after.follow({
      task: 'watch-links',
      topic: 'records',
      restSeconds: REST_SECONDS,
      work: (workspaceId, stopping) => this.look(workspaceId, stopping),
    });
  }

  /** Checks the ways that were added since the last check. */
  async look(workspaceId: string, stopping = new AbortController().signal): Promise<void> {
    let more = true;
    while (more) {
      stopping.throwIfAborted();
      more = await this.database.inWorkspace(workspaceId, (tx) => this.#some(tx));
    }
  }

  /** The latest first, or the one with an id; each with how many came by it. */
  list(tx: WorkspaceTx, most: number, id: string | null = null): Promise<WrongLink[]> {
    return tx.statement<WrongLink>('wrong_links', LIST_SQL, [tx.workspaceId, most, id]);
  }

  /** Only their ids and times; cheap enough for the count on every page. */
  ids(tx: WorkspaceTx, most: number): Promise<{ id: string; at: Date }[]> {
    return tx.statement(
      'wrong_link_ids',
      'select id, at from wrong_link where workspace_id = $1 order by at desc, id limit $2',
      [tx.workspaceId, most],
    );
  }

  /** The ids of the latest submissions that came by a link. */
  async submissionsBy(tx: WorkspaceTx, { parameters }: WrongLink, most: number): Promise<string[]> {
    const rows = await tx.statement<{ id: string }>(
      'wrong_link_submissions',
      `select v.id from touch_way w join visit v on v.workspace_id = w.workspace_id and v.way_id = w.id
       where w.workspace_id = $1 and ${sameLink('$2::jsonb')} order by v.at desc, v.id limit $3`,
      [tx.workspaceId, JSON.stringify(parameters), most],
    );
    return rows.map(({ id }) => id);
  }

  /** Removes links that are no longer wrong, after the register or the rules changed. */
  async lookAgain(tx: WorkspaceTx): Promise<void> {
    const wrong = await this.list(tx, AT_ONCE);
    const [rules, codes] = [await this.rules.rules(tx), await this.campaigns.codes(tx)];
    const right = wrong.filter(({ parameters }) => !findWrong(parameters, rules, codes));
    await tx.statement(
      'forget_wrong_links',
      'delete from wrong_link where workspace_id = $1 and id = any($2::text[])',
      [tx.workspaceId, right.map(({ id }) => id)],
    );
    await this.events.tell(tx, 'decisions');
  }

  async #some(tx: WorkspaceTx): Promise<boolean> {
    const codes = await this.campaigns.codes(tx);
    // Without campaigns the workspace does not use link rules yet.
    if (!Object.keys(codes).length) return false;
    const ways = await tx.statement<{ id: number; way: Way; old: boolean | null }>('ways_to_watch', WAYS_SQL, [
      tx.workspaceId,
    ]);
    if (!ways.length) return false;
    const rules = await this.rules.rules(tx);
    const found = new Map(
      ways.flatMap(({ way, old }) => {
        if (old) return [];
        const parameters = parametersOf(way);
        const wrong = findWrong(parameters, rules, codes);
        return wrong ? [[idOf(parameters), { parameters, ...wrong }] as const] : [];
      }),
    );
    if (found.size) await this.#keep(tx, found);
    await tx.statement(
      'links_watched',
      `insert into link_watch (workspace_id, looked_until) values ($1, $2)
       on conflict (workspace_id) do update set looked_until = excluded.looked_until`,
      [tx.workspaceId, ways.at(-1)!.id],
    );
    return ways.length === AT_ONCE;
  }

  async #keep(tx: WorkspaceTx, found: ReadonlyMap<string, Found & { parameters: LinkParameters }>): Promise<void> {
    const links = [...found.values()];
    const kept = await tx.statement<{ id: string }>(
      'keep_wrong_links',
      `insert into wrong_link (workspace_id, id, parameters, problems, unknown_campaign)
       select $1::uuid, l.id, l.parameters, array(select jsonb_array_elements_text(l.problems)), l.unknown
       from unnest($2::text[], $3::jsonb[], $4::jsonb[], $5::boolean[]) l (id, parameters, problems, unknown)
       on conflict do nothing returning id`,
      [
        tx.workspaceId,
        [...found.keys()],
        links.map(({ parameters }) => JSON.stringify(parameters)),
        links.map(({ problems }) => JSON.stringify(problems)),
        links.map(({ unknownCampaign }) => unknownCampaign),
      ],
    );
    if (kept.length) await this.events.tell(tx, 'decisions');
  }
}

/** Links that brought no visit for this long are not reported; the first check looks at all ways ever stored. */
const OLD = '30 days';

const WAYS_SQL = `select w.id, w.way, (select max(at) from visit v where v.workspace_id = w.workspace_id and v.way_id = w.id) < now() - interval '${OLD}' as old
  from touch_way w where w.workspace_id = $1
  and w.id > coalesce((select looked_until from link_watch where workspace_id = $1), 0) order by w.id limit ${AT_ONCE}`;

/** The parameters that identify a link here. */
const TOLD_BY = ['utm_source', 'utm_medium', 'utm_campaign'] as const;

const LIST_SQL = `select l.id, l.parameters, l.problems, l.unknown_campaign as "unknownCampaign", l.at,
    (select count(*)::int from touch_way w join visit v on v.workspace_id = w.workspace_id and v.way_id = w.id
     where w.workspace_id = l.workspace_id and ${sameLink('l.parameters')}) as submissions
  from wrong_link l where l.workspace_id = $1 and ($3::text is null or l.id = $3) order by l.at desc, l.id limit $2`;

interface Found {
  problems: string[];
  unknownCampaign: boolean;
}

function parametersOf(way: Way): LinkParameters {
  return Object.fromEntries(CAMPAIGN_PARAMETERS.flatMap((name) => (way[name] ? [[name, way[name]]] : [])));
}

/** What is wrong with a link; null when nothing is, or when it has no campaign parameters. */
function findWrong(parameters: LinkParameters, rules: LinkRules, codes: CampaignCodes): Found | null {
  if (!TOLD_BY.some((name) => parameters[name])) return null;
  const { utm_campaign: campaign } = parameters;
  const unknownCampaign = campaign !== undefined && !Object.hasOwn(codes, plainName(campaign));
  const problems = checkLink(parameters, rules)
    // The spelling of an unknown campaign is no separate problem.
    .filter(({ at }) => !unknownCampaign || at !== '/utm_campaign')
    .map(({ text }) => text);
  if (unknownCampaign) problems.unshift(`The register has no campaign “${campaign}”.`);
  return problems.length ? { problems, unknownCampaign } : null;
}

function idOf(parameters: LinkParameters): string {
  const told = JSON.stringify(TOLD_BY.map((name) => parameters[name] ?? null));
  return `link.${createHash('md5').update(told).digest('hex')}`;
}
