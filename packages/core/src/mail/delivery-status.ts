/** What a report says about one receiver of a mail. */
export interface DeliveryStatus {
  /** `delayed` is under way still; `relayed` and `expanded` went on to where nothing is told any more. */
  action: 'failed' | 'delayed' | 'delivered' | 'relayed' | 'expanded';
  /** Such as `5.1.1` (RFC 3463); blank where none stands there. */
  status: string;
  /** What the receiver's server said, on one line. */
  said: string;
}

const ACTIONS: readonly string[] = ['failed', 'delayed', 'delivered', 'relayed', 'expanded'];
const LONGEST = 300;
/** A mail has one receiver; what goes on beyond this is none of ours. */
const MOST_LINES = 2_000;

/**
 * What a report tells of a mail's receivers (RFC 3464, the part `message/delivery-status`), in its order; a group of fields
 * without a known action is left out. Takes any line ends, folded lines and any capitals.
 */
export function readDeliveryStatus(text: string): DeliveryStatus[] {
  return groupsOf(text).flatMap((fields) => {
    const action = (fields.get('action') ?? '')
      .trim()
      .split(/[\s;(]/, 1)[0]!
      .toLowerCase();
    if (!ACTIONS.includes(action)) return [];
    const status = (fields.get('status') ?? '').trim().split(/[\s;(]/, 1)[0]!;
    return [
      {
        action: action as DeliveryStatus['action'],
        status: /^[245]\.\d{1,3}\.\d{1,3}$/.test(status) ? status : '',
        said: saidBy(fields.get('diagnostic-code') ?? ''),
      },
    ];
  });
}

/** The fields of each group by their names in small letters; groups are parted by blank lines. */
function groupsOf(text: string): Map<string, string>[] {
  const groups: Map<string, string>[] = [];
  let group = new Map<string, string>();
  let last = '';
  for (const line of text.split(/\r\n|\r|\n/, MOST_LINES)) {
    if (line.trim() === '') {
      if (group.size) groups.push(group);
      group = new Map();
      last = '';
    } else if (/^[ \t]/.test(line)) {
      if (last) group.set(last, `${group.get(last)} ${line.trim()}`);
    } else {
      const colon = line.indexOf(':');
      last = colon > 0 ? line.slice(0, colon).trim().toLowerCase() : '';
      if (last) group.set(last, line.slice(colon + 1).trim());
    }
  }
  return group.size ? [...groups, group] : groups;
}

/** What stands after the type, such as `smtp;`. */
function saidBy(code: string): string {
  const type = /^[\w-]{1,40}\s*;/.exec(code)?.[0] ?? '';
  return code
    .slice(type.length)
    .replaceAll(/[\s\p{Cc}]+/gu, ' ')
    .trim()
    .slice(0, LONGEST);
}
