import type { Services } from '@haycart/server/seeding';
import type { Tx } from '../tx';

const SITE = 'https://quillfern.example';
const DAY = 86_400_000;
const MONTHS = 13;

/** Quillfern's campaigns. Costs are in pence a month, or for the days of a show. */
const CAMPAIGNS = [
  {
    campaign: { name: 'Spring newsletter', code: 'spring-2026', source: 'spring-newsletter', medium: 'email' },
    aMonth: 180_00,
    pages: ['/prices'],
  },
  {
    campaign: { name: 'Growers Weekly, seed season', code: 'seed-season', source: 'growers-weekly', medium: 'display' },
    aMonth: 640_00,
    pages: ['/glasshouses/growers'],
  },
  {
    campaign: { name: 'School gardens', code: 'teaching-gardens', source: 'school-gardens', medium: 'partner' },
    aMonth: 95_00,
    pages: ['/glasshouses/schools'],
  },
  {
    campaign: { name: 'Spring show', code: 'spring-show', source: 'show-stand', medium: 'event' },
    show: 4_200_00,
    pages: ['/'],
  },
] as const;

/** Fills the register of campaigns with what each cost in the last year, and with links. */
export async function runCampaigns(services: Services, tx: Tx, now: Date): Promise<void> {
  const dayAgo = (days: number) => new Date(now.getTime() - days * DAY).toISOString().slice(0, 10);
  const owner = (await services.people.choices(tx))[0]?.key;
  for (const { campaign, pages, ...spent } of CAMPAIGNS) {
    const { key } = await services.campaigns.add(tx, { ...campaign, ...(owner ? { owner } : {}) });
    const of = { campaign: campaign.code, currency: 'GBP' };
    const costs =
      'show' in spent
        ? [{ ...of, from: dayAgo(214), to: dayAgo(211), amount: spent.show }]
        : Array.from({ length: MONTHS }, (_, ago) => ({
            ...of,
            from: dayAgo(30 * ago + 29),
            to: dayAgo(30 * ago),
            amount: spent.aMonth,
          }));
    await services.campaignCosts.keep(tx, costs, { over: 'refuse', addCampaigns: false });
    const links = pages.map((page) => ({ page: `${SITE}${page}`, parameters: {} }));
    await services.campaignLinks.make(tx, key, links, 'Robin Nye');
  }
}
