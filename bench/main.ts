import { benchOutline } from './outline.ts';
import { benchStages } from './stages.ts';

await benchOutline();
await benchStages();
