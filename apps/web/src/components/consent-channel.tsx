import { capitalised, CHANNEL_WORDS, CONSENT_CHANNELS, type ConsentChannel } from '@haycart/core';
import { SelectField } from './text-field';

/** What a channel is called where it stands alone. */
export function channelLabel(channel: ConsentChannel): string {
  return capitalised(CHANNEL_WORDS[channel]);
}

/** To what somebody agrees. */
export function ChannelField({
  label,
  hideLabel = false,
  channel,
  choose,
}: {
  label: string;
  hideLabel?: boolean;
  channel: ConsentChannel;
  choose: (channel: ConsentChannel) => void;
}) {
  return (
    <SelectField
      label={label}
      hideLabel={hideLabel}
      value={channel}
      onChange={({ target }) => choose(target.value as ConsentChannel)}
    >
      {CONSENT_CHANNELS.map((one) => (
        <option key={one} value={one}>
          {channelLabel(one)}
        </option>
      ))}
    </SelectField>
  );
}
