import type { ChannelShape, TextGatewayShape } from '@haycart/api';
import { queryOptions } from '@tanstack/react-query';
import { get } from '../client';

export const channelsQuery = queryOptions({ queryKey: ['channels'], queryFn: get<ChannelShape[]>('/channels') });
export const textGatewayQuery = queryOptions({
  queryKey: ['channels', 'gateway'],
  queryFn: get<TextGatewayShape>('/text-gateway'),
});
