import { AcceptModule } from '../accept/accept.module';
import { FormsModule } from '../forms/forms.module';

/** What takes submissions and shows forms, and nothing else. */
export const MODULES = [FormsModule, AcceptModule];
