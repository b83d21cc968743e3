import { Injectable } from '@nestjs/common';

/** Whether the server is about to stop: it finishes what it has, and is not ready for more. */
@Injectable()
export class Stopping {
  begun = false;
}
