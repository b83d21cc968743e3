import { Inject, Injectable } from '@nestjs/common';
import type { CampaignLink, ProblemAt } from '@haycart/api';
import { buildLink, checkLink, jsonPointer, LINK_LIMITS, type LinkParameters, type LinkWish } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { newId } from '../platform/new-id';
import { CampaignsService } from './campaigns.service';
import { LinkRulesService } from './link-rules.service';
import { sameLinkWholly } from './same-link-sql';

interface Row extends Omit<CampaignLink, 'at'> {
  at: Date;
}

/** The links of campaigns, and what each brought. */
@Injectable()
export class CampaignLinks {
  constructor(
    @Inject(CampaignsService) private readonly campaigns: CampaignsService,
    @Inject(LinkRulesService) private readonly rules: LinkRulesService,
  ) {}

  /** The latest first. A visit belongs to a link when all its parameters are the same. */
  async of(tx: WorkspaceTx, key: string): Promise<CampaignLink[]> {
    await this.campaigns.one(tx, key);
    const rows = await tx.statement<Row>('campaign_links', LINKS_SQL, [tx.workspaceId, key]);
    return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
  }

  /**
   * Creates links that follow the link rules. A link that exists already is left as it is.
   *
   * @throws ProblemError 422 with what is wrong with each
   */
  async make(tx: WorkspaceTx, key: string, wishes: readonly LinkWish[], by: string): Promise<CampaignLink[]> {
    const { code, source, medium } = await this.campaigns.one(tx, key);
    const rules = await this.rules.rules(tx);
    const errors: ProblemAt[] = [];
    const made = wishes.flatMap(({ page, parameters }, index) => {
      const link: LinkParameters = {
        ...(source ? { utm_source: source } : {}),
        ...(medium ? { utm_medium: medium } : {}),
        ...plain(parameters),
        utm_campaign: code,
      };
      const built = buildLink(page, link);
      const problems = checkLink(link, rules);
      for (const { at = '', code: wrong, text } of problems)
        errors.push({ at: `${jsonPointer(['links', index])}${at}`, code: wrong, message: text });
      if (!built.ok)
        errors.push({ at: jsonPointer(['links', index, 'page']), code: 'not-a-web-address', message: built.text });
      return built.ok && !problems.length ? [{ address: built.address, link }] : [];
    });
    if (errors.length) throw new ProblemError('refused', errors[0]!.message, errors.slice(0, LINK_LIMITS.links));
    await tx.statement(
      'make_links',
      `insert into campaign_link (workspace_id, id, campaign_key, address, parameters, by)
       select $1::uuid, l.id, $2, l.address, l.parameters, $6 from unnest($3::uuid[], $4::text[], $5::jsonb[]) l (id, address, parameters)
       on conflict do nothing`,
      [
        tx.workspaceId,
        key,
        made.map(() => newId()),
        made.map(({ address }) => address),
        made.map(({ link }) => JSON.stringify(link)),
        by,
      ],
    );
    return this.of(tx, key);
  }

  async remove(tx: WorkspaceTx, key: string, id: string): Promise<void> {
    const gone = await tx.statement<{ id: string }>(
      'remove_link',
      'delete from campaign_link where workspace_id = $1 and campaign_key = $2 and id = $3 returning id',
      [tx.workspaceId, key, id],
    );
    if (!gone.length) throw new ProblemError('not-found', 'There is no such link.');
  }
}

/** The page of a way `w` where the visitor came in. */
const LANDED = `coalesce(w.way ->> 'landing', w.way ->> 'page')`;
const pageOf = (address: string) => `rtrim(regexp_replace(${address}, '[?#].*$', ''), '/')`;

/**
 * The links of the campaign `$2`, with the submissions that have the same parameters, and the deals they touched. Of links
 * with the same parameters, the one to the page where the visitor came in counts; all of them where that is another page, or not known.
 */
const LINKS_SQL = `select l.id, l.address, l.parameters, l.by, l.at, coalesce(b.submissions, 0)::int as submissions,
    coalesce(b.deals, 0)::int as deals, coalesce(b."wonDeals", 0)::int as "wonDeals"
  from campaign_link l
  left join lateral (
    select count(distinct v.id) filter (where not v.earlier) as submissions, count(distinct d.id) as deals, count(distinct d.id) filter (where d.status = 'won') as "wonDeals"
    from touch_way w join visit v on v.workspace_id = w.workspace_id and v.way_id = w.id
    left join touch t on t.workspace_id = v.workspace_id and t.visit_id = v.id and t.record_kind = 'deal'
    left join deal d on d.workspace_id = t.workspace_id and d.id = t.record_id
    where w.workspace_id = l.workspace_id and ${sameLinkWholly('l.parameters')}
      and (${pageOf(LANDED)} = ${pageOf('l.address')} or ${LANDED} is null or not exists (
        select 1 from campaign_link o where o.workspace_id = $1 and o.campaign_key = $2 and o.parameters = l.parameters
          and ${pageOf('o.address')} = ${pageOf(LANDED)}))) b on true
  where l.workspace_id = $1 and l.campaign_key = $2 order by l.at desc, l.id desc`;

function plain(parameters: LinkParameters): LinkParameters {
  return Object.fromEntries(
    Object.entries(parameters).flatMap(([name, text]) => (text.trim() ? [[name, text.trim()]] : [])),
  );
}
