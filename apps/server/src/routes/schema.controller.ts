import { Controller, Get, Header } from '@nestjs/common';
import { ApiExcludeController } from '@nestjs/swagger';
import { ROUTE_SCHEMA } from '@haycart/core';
import { Public } from '../platform/auth/marks';
import { Open } from '../platform/commands/command';

/** The open format of routes, as JSON Schema 2020-12. */
@ApiExcludeController()
@Public()
@Controller('api')
export class SchemaController {
  @Get('route.schema.json')
  @Open('Gives the JSON Schema of a route')
  @Header('content-type', 'application/schema+json')
  schema(): object {
    return ROUTE_SCHEMA;
  }
}
