import type { Family } from '../column';
import type { FamilyNotation } from './family-notation';
import { day } from './families/day';
import { number } from './families/number';
import { options } from './families/options';
import { region } from './families/region';
import { several } from './families/several';
import { text } from './families/text';
import { timeOfDay } from './families/time-of-day';
import { yesNo } from './families/yes-no';

/** How the cells of each family of columns are written. */
export const NOTATIONS: Readonly<Record<Family, FamilyNotation>> = {
  text,
  number,
  day,
  'yes-no': yesNo,
  options,
  several,
  region,
  'time-of-day': timeOfDay,
};
