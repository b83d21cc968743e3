import type { JsonObject } from '@haycart/core';
import type { MadeUp } from './submissions';

/** Somebody who wrote through the survey form, as they wrote. */
interface Written {
  first: string;
  last: string;
  email: string;
  phone?: string;
  organisation?: string;
}

/** Two arrivals of which it is known whether one person sent both. */
export interface Planted {
  why: string;
  same: boolean;
  one: Written;
  other: Written;
}

const pair = (same: boolean, why: string, one: Written, other: Partial<Written>): Planted => ({
  why,
  same,
  one,
  other: { ...one, ...other },
});
const same = (why: string, one: Written, other: Partial<Written>) => pair(true, why, one, other);
const different = (why: string, one: Written, other: Partial<Written>) => pair(false, why, one, other);

/** The duplicates of real life, and those who only look like it. */
export const PLANTED: readonly Planted[] = [
  same(
    'typing error',
    {
      first: 'Tamsin',
      last: 'Fairholm',
      email: 'tamsin.fairholm@larkhill-growers.example',
      phone: '07700 900411',
      organisation: 'Larkhill Growers',
    },
    { last: 'Fairhlom', email: 'tamsin.fairhlom@larkhill-growers.example' },
  ),
  same(
    'typing error',
    { first: 'Leontien', last: 'Troutbeck', email: 'leontien@thornby-seedlab.example', phone: '07700 900412' },
    { first: 'Leontein', email: 'l.troutbeck@example.net' },
  ),
  same(
    'typing error',
    { first: 'Viggo', last: 'Patterdale', email: 'viggo.patterdale@example.com', phone: '+44 7700 900 413' },
    { last: 'Paterdale', email: 'viggopatterdale7@example.org' },
  ),
  same(
    'typing error',
    {
      first: 'Yusuf',
      last: 'Skelwith',
      email: 'yusuf.skelwith@greywell-estate.example',
      phone: '07700 900414',
      organisation: 'Greywell Estate',
    },
    { email: 'yusuf.skelwit@greywell-estate.example', phone: '' },
  ),
  same(
    'nickname',
    {
      first: 'William',
      last: 'Netherby',
      email: 'william.netherby@stonecroft-nurseries.example',
      phone: '07700 900421',
      organisation: 'Stonecroft Nurseries',
    },
    { first: 'Bill', email: 'bill@example.net' },
  ),
  same(
    'nickname',
    { first: 'Katherine', last: 'Dalzell', email: 'katherine.dalzell@ashcombe-school.example', phone: '020 7946 0422' },
    { first: 'Kate', email: 'kate.dalzell@ashcombe-school.example' },
  ),
  same(
    'nickname',
    {
      first: 'Cornelis',
      last: 'van den Berg',
      email: 'c.vandenberg@zwaanburg-tuinen.example',
      phone: '+31 6 0000 4423',
    },
    { first: 'Kees', email: 'keesvandenberg@example.org' },
  ),
  same(
    'nickname',
    { first: 'Margaret', last: 'Ingleby', email: 'margaret@hollinbeck-botanic.example', phone: '07700 900424' },
    { first: 'Peggy', email: 'peggy.ingleby@example.net' },
  ),
  same(
    'changed surname',
    {
      first: 'Imogen',
      last: 'Hartley',
      email: 'imogen.hartley@withybrook-academy.example',
      phone: '07700 900431',
      organisation: 'Withybrook Academy',
    },
    { last: 'Prothero', email: 'imogen.prothero@withybrook-academy.example' },
  ),
  same(
    'changed surname',
    {
      first: 'Saoirse',
      last: 'Keswick',
      email: 'saoirse@maplewick-garden.example',
      phone: '+1 416 555 0132',
      organisation: 'Maplewick Garden Centre',
    },
    { last: 'Langdale' },
  ),
  same(
    'moved job',
    {
      first: 'Corin',
      last: 'Ravenscar',
      email: 'corin.ravenscar@silverdale-growers.example',
      phone: '07700 900441',
      organisation: 'Silverdale Growers',
    },
    { email: 'corin.ravenscar@beckfoot-estate.example', organisation: 'Beckfoot Estate' },
  ),
  same(
    'moved job',
    {
      first: 'Delyth',
      last: 'Penhallow',
      email: 'd.penhallow@ironbridge-school.example',
      phone: '07700 900442',
      organisation: 'Ironbridge School',
    },
    { email: 'dpenhallow@hawkshaw-seedlab.example', organisation: 'Hawkshaw Seed Lab' },
  ),
  same(
    'shared mailbox',
    {
      first: 'Rowan',
      last: 'Yarrow',
      email: 'info@kestrelby-nurseries.example',
      phone: '07700 900451',
      organisation: 'Kestrelby Nurseries',
    },
    { email: 'rowan.yarrow@kestrelby-nurseries.example' },
  ),
  same(
    'exchanged fields',
    { first: 'Ulla', last: 'Winster', email: 'ulla.winster@example.com', phone: '07700 900452' },
    { first: 'Winster', last: 'Ulla', email: 'ullawinster2@example.net' },
  ),
  different(
    'colleague at the shared mailbox',
    {
      first: 'Bryony',
      last: 'Orrest',
      email: 'info@juniperorchards.example',
      phone: '020 7946 0461',
      organisation: 'Juniper Orchards',
    },
    { first: 'Pascal', last: 'Mardale' },
  ),
  different(
    'family at one number',
    { first: 'Eilidh', last: 'Cowgill', email: 'eilidh.cowgill@example.com', phone: '07700 900471' },
    { first: 'Ruairi', email: 'ruairi.cowgill@example.net' },
  ),
  different(
    'family at one mailbox',
    { first: 'Greta', last: 'Birkett', email: 'birkettfamily@example.org', phone: '07700 900472' },
    { first: 'Jonas' },
  ),
  different(
    'one name, two firms',
    { first: 'Theo', last: 'Marsh', email: 'theo@quayford-growers.example', phone: '07700 900473' },
    { email: 'theo.marsh@pellrowan-estate.example', phone: '020 7946 0474', organisation: 'Pellrowan Estate' },
  ),
  different(
    'two of one given name in one firm',
    {
      first: 'Heike',
      last: 'Moss',
      email: 'heike.moss@moorkamp-gaertnerei.example',
      phone: '07700 900475',
      organisation: 'Moorkamp Gärtnerei',
    },
    { last: 'Aust', email: 'heike.aust@moorkamp-gaertnerei.example', phone: '07700 900476' },
  ),
];

const DAY = 86_400_000;

/** The planted arrivals, spread over the last months; the second of a pair comes some weeks after the first. */
export function plantedArrivals(now: Date): MadeUp[] {
  return PLANTED.flatMap(({ one, other }, index) => {
    const first = now.getTime() - (30 + index * 7) * DAY;
    return [arrival(one, first), arrival(other, first + (9 + (index % 5) * 4) * DAY)];
  });
}

function arrival({ first, last, email, phone = '', organisation = '' }: Written, at: number): MadeUp {
  const payload: JsonObject = {
    first_name: first,
    last_name: last,
    email,
    phone,
    organisation,
    growing_for: 'teaching-garden',
    bays: '4',
    message: 'Could you send somebody to look at the site?',
    channel: 'web',
    consent: 'yes',
  };
  return { intake: 'survey', at: new Date(at), payload, visit: { page: 'https://quillfern.example/site-survey' } };
}
