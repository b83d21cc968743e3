import { Inject, Injectable } from '@nestjs/common';
import type { CampaignShape } from '@haycart/api';
import { CAMPAIGN_PARAMETERS, counted, nearestCampaign, PARAMETER_LABELS } from '@haycart/core';
import { SourceChanges } from '../../../attribution/changes/source-changes.service';
import { CampaignsService } from '../../../campaigns/campaigns.service';
import { WrongLinks, type WrongLink } from '../../../campaigns/wrong-links.service';
import type { Caller } from '../../../platform/auth/caller';
import type { WorkspaceTx } from '../../../platform/database/database';
import { ProblemError } from '../../../platform/errors/problem-error';
import {
  LEAVE,
  MOST_COUNTED,
  lineOf,
  type AskedLines,
  type DecisionDetails,
  type DecisionKind,
  type KindOfLine,
  type Verdict,
  type WaitingLine,
} from '../decision-kind';
import { exampleOf, type Example } from '../examples';
import { decidedAmong } from '../left-alone';

interface LinkLine extends WaitingLine {
  link: WrongLink;
}

const KIND: KindOfLine = {
  kind: 'link',
  title: 'A link against the rules',
  rank: 95,
  about: ({ subject, detail }) => `${subject}: ${detail}`,
};
const EXAMPLES = 10;

/** Links that brought visits and break the link rules or name an unknown campaign. */
@Injectable()
export class LinkDecisions implements DecisionKind<LinkLine> {
  constructor(
    @Inject(CampaignsService) private readonly campaigns: CampaignsService,
    @Inject(SourceChanges) private readonly changes: SourceChanges,
    @Inject(WrongLinks) private readonly links: WrongLinks,
  ) {}

  async lines(tx: WorkspaceTx, { most, id: only }: AskedLines): Promise<LinkLine[]> {
    if (only !== undefined && !only.startsWith('link.')) return [];
    const links = await this.links.list(tx, only === undefined ? MOST_COUNTED : 1, only ?? null);
    const decided = await decidedAmong(
      tx,
      links.map(({ id }) => id),
    );
    return links
      .filter(({ id }) => !decided.has(id))
      .slice(0, most)
      .map((link) => ({
        ...lineOf(KIND, {
          id: link.id,
          subject: saysOf(link),
          detail: link.problems[0]!,
          count: link.submissions,
          at: link.at.toISOString(),
          like: link.unknownCampaign ? `link ${link.parameters.utm_campaign}` : 'link written otherwise',
        }),
        link,
      }));
  }

  async count(tx: WorkspaceTx): Promise<number> {
    const links = await this.links.ids(tx, MOST_COUNTED);
    const decided = await decidedAmong(
      tx,
      links.map(({ id }) => id),
    );
    return links.filter(({ id }) => !decided.has(id)).length;
  }

  async details(tx: WorkspaceTx, { link }: LinkLine): Promise<DecisionDetails> {
    const nearest = await this.#nearest(tx, link);
    const ids = await this.links.submissionsBy(tx, link, EXAMPLES);
    const rows = await tx.statement<Example>(
      'examples_of_link',
      `select id as submission_id, received_at, format, body, coalesce(visit ->> 'page', '') as text
       from submission where workspace_id = $1 and id = any($2::uuid[]) order by received_at desc`,
      [tx.workspaceId, ids],
    );
    const said = CAMPAIGN_PARAMETERS.flatMap((name) => {
      const text = link.parameters[name];
      return text ? [`${PARAMETER_LABELS[name].toLowerCase()} “${text}”`] : [];
    });
    return {
      question: `${counted(link.submissions, 'submission')} came by a link against the rules`,
      story: `It says ${said.join(', ')}. ${link.problems.join(' ')}`,
      consequence: consequenceOf(link, nearest),
      choices: [
        ...(nearest ? [{ action: 'join', label: `It is ${nearest.name}`, key: 'i' }] : []),
        ...(link.unknownCampaign ? [{ action: 'add', label: 'Add the campaign', key: 'n' }] : []),
        LEAVE,
      ],
      things: [],
      examples: rows.map(exampleOf),
      view: { as: 'plain' },
    };
  }

  async decide(tx: WorkspaceTx, { link }: LinkLine, { action }: Verdict, by: Caller['by']): Promise<string> {
    const said = link.parameters.utm_campaign ?? '';
    if (action === 'join') {
      const nearest = await this.#nearest(tx, link);
      if (!nearest) throw new ProblemError('refused', 'There is no campaign like it any more.');
      await this.campaigns.change(tx, nearest.key, { spellings: [...nearest.spellings, said] });
      const change = await this.changes.applyRules(tx, by);
      await this.links.lookAgain(tx);
      return `“${said}” counts as ${nearest.name}; ${counted(change?.touches ?? 0, 'touch', 'touches')} of the past moved.`;
    }
    if (action !== 'add' || !link.unknownCampaign)
      throw new ProblemError('refused', 'This can be joined with a campaign or added where that is offered, or left.');
    const added = await this.campaigns.add(tx, {
      name: said,
      code: said,
      source: link.parameters.utm_source,
      medium: link.parameters.utm_medium,
    });
    await this.links.lookAgain(tx);
    return `The register has a campaign ${added.name} now.`;
  }

  async #nearest(tx: WorkspaceTx, { unknownCampaign, parameters }: WrongLink): Promise<CampaignShape | undefined> {
    if (!unknownCampaign) return undefined;
    return nearestCampaign(parameters.utm_campaign!, await this.campaigns.all(tx));
  }
}

function saysOf({ parameters: { utm_source, utm_medium, utm_campaign } }: WrongLink): string {
  return [utm_source, utm_medium, utm_campaign].filter(Boolean).join(', ');
}

function consequenceOf({ unknownCampaign }: WrongLink, nearest: CampaignShape | undefined): string {
  const left = 'Left: not asked again. The link itself is mended where it stands.';
  if (nearest)
    return `It is ${nearest.name}: it counts there from now on and in the past, which can be taken back in Set up. ${left}`;
  return unknownCampaign ? `Added to the register of campaigns, without costs so far. ${left}` : left;
}
