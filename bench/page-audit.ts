import { launch } from 'chrome-launcher';
import lighthouse from 'lighthouse';
import { median } from './support';

/** What Lighthouse found about a page. */
export interface PageAudit {
  /** 0 to 100. */
  performance: number;
  accessibility: number;
  /**
   * When the first question could be answered, in milliseconds after the page was asked for: it stands in the page and works
   * without the script, so from the first paint on.
   */
  usable: number;
  /** When the script had run too. */
  settled: number;
}

/** One run is a matter of chance on a busy machine; the middle one of several counts. */
const RUNS = 3;
const FLAGS = ['--headless', '--no-sandbox', '--disable-gpu', '--disable-background-networking'];

/**
 * Audits pages one after the other as Lighthouse does for phones: a slow connection (1.6 Mbit/s, 150 ms there and back) and
 * a processor four times as slow. The processor's and the connection's slowness are simulated from one load, as Lighthouse
 * does by default; with `really`, the browser is really slowed down.
 */
export async function auditPages(addresses: readonly string[], really = false): Promise<PageAudit[]> {
  const chrome = await launch({ chromePath: '/usr/bin/chromium', chromeFlags: FLAGS });
  try {
    const audits: PageAudit[] = [];
    for (const address of addresses) {
      const runs: PageAudit[] = [];
      for (let n = 0; n < RUNS; n += 1) runs.push(await auditPage(address, chrome.port, really));
      const middle = (name: keyof PageAudit) => median(runs.map((run) => run[name]));
      audits.push({
        performance: middle('performance'),
        accessibility: middle('accessibility'),
        usable: middle('usable'),
        settled: middle('settled'),
      });
    }
    return audits;
  } finally {
    chrome.kill();
  }
}

async function auditPage(address: string, port: number, really: boolean): Promise<PageAudit> {
  const run = await lighthouse(address, {
    port,
    onlyCategories: ['performance', 'accessibility'],
    logLevel: 'error',
    throttlingMethod: really ? 'devtools' : 'simulate',
  });
  if (!run || run.lhr.runtimeError)
    throw new Error(`${address} could not be audited: ${run?.lhr.runtimeError?.message}`);
  const { categories, audits } = run.lhr;
  return {
    performance: Math.round((categories.performance?.score ?? 0) * 100),
    accessibility: Math.round((categories.accessibility?.score ?? 0) * 100),
    usable: Math.round(audits['first-contentful-paint']?.numericValue ?? Number.NaN),
    settled: Math.round(audits.interactive?.numericValue ?? Number.NaN),
  };
}
