import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { LabelsService } from '../../labels/labels.service';
import { Events } from '../../platform/events/events';
import { RecordActs } from '../../records/edits/record-acts.service';

/** Whoever takes back that labels were merged or deleted has the labels again, too. */
@Injectable()
export class LabelsBroughtBack implements OnModuleInit {
  constructor(
    @Inject(RecordActs) private readonly acts: RecordActs,
    @Inject(LabelsService) private readonly labels: LabelsService,
    @Inject(Events) private readonly events: Events,
  ) {}

  onModuleInit(): void {
    this.acts.beforeTakenBack(async (tx, act) => {
      if (await this.labels.bringBack(tx, act)) await this.events.tell(tx, 'labels', 'fields');
    });
  }
}
