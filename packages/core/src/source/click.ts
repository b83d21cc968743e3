/** The names of parameters by which advertisers identify a click. */
const CLICK_NAME = /^[a-z_]{0,20}(?:clid|clickid|click_id)$/i;
const LONGEST_NAME = 30;
/** The most parameters that are looked at. */
const MOST_PARAMETERS = 100;

/** The first click parameter among those of an address. */
export function clickIn(
  parameters: Iterable<readonly [string, string | undefined]>,
): { name: string; id: string } | undefined {
  let looked = 0;
  for (const [name, id] of parameters) {
    looked += 1;
    if (looked > MOST_PARAMETERS) return undefined;
    if (id && name.length <= LONGEST_NAME && CLICK_NAME.test(name)) return { name: name.toLowerCase(), id };
  }
  return undefined;
}
