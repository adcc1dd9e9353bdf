import { say } from '../../core/words/say.ts';

/** What can be done with a job as it lies on the shelf. */
export const SHELF_ACTIONS = { again: say('Same again…'), versions: say('Versions…'), collect: say('Collections…'), rename: say('Rename…'), duplicate: say('Duplicate'), keep: say('Save as a file'), remove: say('Delete') } as const;
export type ShelfAction = keyof typeof SHELF_ACTIONS;
