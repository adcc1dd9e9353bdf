/** The page’s word to a build that waits: it may take over. */
export const TAKE_OVER = 'take over';
