import { Module } from '@nestjs/common';
import { ValueSetsService } from './value-sets.service';

/** Named sets of values. */
@Module({ providers: [ValueSetsService], exports: [ValueSetsService] })
export class ValueSetsModule {}
