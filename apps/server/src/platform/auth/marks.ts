import { applyDecorators, SetMetadata } from '@nestjs/common';
import { ApiExtension } from '@nestjs/swagger';

export const PUBLIC = 'haycart:public';
export const NEEDS_PERSON = 'haycart:needs-person';
export const TAKES_SENDERS = 'haycart:takes-senders';

/** Marks what needs no session and no token. */
export const Public = () => applyDecorators(SetMetadata(PUBLIC, true), ApiExtension('x-public', true));

/** Marks what only a person who is signed in may change: people, tokens, secrets, domains. */
export const NeedsPerson = () => SetMetadata(NEEDS_PERSON, true);

/** Marks what a token may do that may only bring submissions and files in. */
export const TakesSenders = () => SetMetadata(TAKES_SENDERS, true);

export const TAKES_BASIC = 'haycart:takes-basic';
/** Marks what is asked by programs that know no bearer tokens, such as calendars: a token is the password of Basic (RFC 7617). */
export const TakesBasic = () => SetMetadata(TAKES_BASIC, true);
