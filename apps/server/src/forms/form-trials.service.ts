import { Inject, Injectable } from '@nestjs/common';
import { compareVersions, figuresOf, type FormFigures, type FormTally } from '@haycart/core';
import type { IntakeShape, TrialFigures } from '@haycart/api';
import { HostedForms, type Trial } from '../intakes/hosted-forms.service';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { FormCounts } from './form-counts.service';

/** Longer ago nothing is looked at; a trial that takes longer will not tell the versions apart. */
const LONGEST_DAYS = 400;

/** Two versions of a form that share its visitors. What was counted must have been written before either is asked. */
@Injectable()
export class FormTrials {
  constructor(
    @Inject(HostedForms) private readonly hosted: HostedForms,
    @Inject(FormCounts) private readonly counts: FormCounts,
  ) {}

  /** The trial of what is about to be published against what visitors see now. `share`: of the visitors, 0 to 1. */
  async against(tx: WorkspaceTx, { id, form, version, state }: IntakeShape, share: number): Promise<Trial> {
    if (!form || state !== 'live')
      throw new ProblemError('conflict', 'Only a live form has visitors to share between two versions.');
    const today = figuresOf(ofVersion(await this.counts.tallies(tx, id, 1), version));
    const { views, starts, sends, seconds } = today;
    const before = { views, starts, sends, seconds: (seconds ?? 0) * sends };
    return { version, form, share, since: new Date().toISOString(), before };
  }

  /** How the two versions of a running trial fare, without what was counted before it began. */
  async figures(tx: WorkspaceTx, intake: IntakeShape): Promise<TrialFigures | null> {
    const trial = await this.hosted.trial(tx, intake.id);
    if (!trial) return null;
    const days = Math.floor((Date.now() - Date.parse(trial.since.slice(0, 10))) / 86_400_000) + 1;
    const tallies = await this.counts.tallies(tx, intake.id, Math.min(days, LONGEST_DAYS));
    const published = figuresOf(ofVersion(tallies, intake.version));
    const earlier = without(figuresOf(ofVersion(tallies, trial.version)), trial.before);
    return {
      version: trial.version,
      share: trial.share,
      since: trial.since,
      published: { version: intake.version, figures: published },
      earlier: { version: trial.version, figures: earlier },
      comparison: compareVersions(published, earlier),
    };
  }
}

function ofVersion(tallies: readonly FormTally[], version: number): FormTally[] {
  return tallies.filter((tally) => tally.version === version);
}

function without(all: FormFigures, before: Trial['before']): FormFigures {
  const left = (of: 'views' | 'starts' | 'sends') => Math.max(0, all[of] - before[of]);
  const [views, starts, sends] = [left('views'), left('starts'), left('sends')];
  return {
    views,
    starts,
    sends,
    completion: views ? Math.min(1, sends / views) : null,
    seconds: sends ? Math.max(0, Math.round(((all.seconds ?? 0) * all.sends - before.seconds) / sends)) : null,
  };
}
