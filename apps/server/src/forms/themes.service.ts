import { Inject, Injectable } from '@nestjs/common';
import { checkTheme, hasErrors, newKey, THEME_FONTS, type Theme } from '@haycart/core';
import type { ThemeShape } from '@haycart/api';
import { and, asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { IntakesService } from '../intakes/intakes.service';
import { databaseFailure } from '../platform/database/failure';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { theme } from './tables';

const colour = z.string().max(7);
const themeShape: z.ZodType<Theme> = z.strictObject({
  font: z.enum(THEME_FONTS),
  background: colour,
  sheet: colour,
  ink: colour,
  accent: colour,
  accentInk: colour,
  corner: z.number().int().min(0).max(24),
  width: z.number().int().min(280).max(1_200),
  spacing: z.enum(['tight', 'usual', 'airy']),
  align: z.enum(['left', 'centre']),
  button: z.strictObject({
    size: z.enum(['small', 'usual', 'large']),
    at: z.enum(['left', 'centre', 'right', 'full']),
  }),
});

/** How forms look: themes that they share. */
@Injectable()
export class ThemesService {
  constructor(
    @Inject(Events) private readonly events: Events,
    @Inject(IntakesService) private readonly intakes: IntakesService,
  ) {}

  async all(tx: WorkspaceTx): Promise<ThemeShape[]> {
    const rows = await tx.db.select().from(theme).where(eq(theme.workspaceId, tx.workspaceId)).orderBy(asc(theme.name));
    const intakes = await this.intakes.all(tx);
    return rows.map(({ key, name, theme: look }) => ({
      key,
      name,
      theme: look,
      forms: intakes.filter(({ form }) => form?.theme === key).map((one) => ({ key: one.key, name: one.name })),
    }));
  }

  async add(tx: WorkspaceTx, name: string, given: unknown): Promise<ThemeShape> {
    const look = readTheme(given);
    const key = newKey(
      name,
      (await this.all(tx)).map((one) => one.key),
      '-',
    );
    try {
      await tx.db.insert(theme).values({ workspaceId: tx.workspaceId, key, name, theme: look });
    } catch (cause) {
      if (databaseFailure(cause) === 'refused')
        throw new ProblemError('conflict', `There is a theme “${name}” already.`);
      throw cause;
    }
    await this.events.tell(tx, 'intakes');
    return { key, name, theme: look, forms: [] };
  }

  /** All forms that wear it look so at once. */
  async change(tx: WorkspaceTx, key: string, given: unknown): Promise<void> {
    const changed = await tx.db
      .update(theme)
      .set({ theme: readTheme(given) })
      .where(and(eq(theme.workspaceId, tx.workspaceId), eq(theme.key, key)))
      .returning();
    if (!changed.length) throw new ProblemError('not-found', 'There is no such theme.');
    await this.events.tell(tx, 'intakes');
  }

  /** The look of a theme, if there is one of that key. */
  async look(tx: WorkspaceTx, key: string | undefined): Promise<Theme | null> {
    if (!key) return null;
    const [row] = await tx.db
      .select()
      .from(theme)
      .where(and(eq(theme.workspaceId, tx.workspaceId), eq(theme.key, key)));
    return row?.theme ?? null;
  }
}

function readTheme(given: unknown): Theme {
  const read = themeShape.safeParse(given);
  if (!read.success) throw new ProblemError('refused', `The theme does not fit: ${read.error.issues[0]!.message}.`);
  const problems = checkTheme(read.data);
  if (hasErrors(problems)) throw new ProblemError('refused', problems[0]!.text, problemsAt(problems));
  return read.data;
}
