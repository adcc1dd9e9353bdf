import type { Film } from './film.ts';
import { say, sayOf } from '../words/say.ts';

/** The film around and below all others. */
export const AROUND_FILM: Film = { id: 'around', name: say('Border'), colour: '#fbf8f3' };

/** The films of the way `backDetail`. */
export const BACK_FILM: Film = { id: 'back', name: sayOf('film', 'Back'), colour: '#f2ead8' };
export const DETAIL_FILM: Film = { id: 'detail', name: say('Detail'), colour: '#2a2533' };

/** The film of a shade of a photo, counted from 0. */
export const shadeId = (k: number): string => `shade-${k + 1}`;

/** The film with which a job starts: that of its one colour. */
export const ONE_FILM_ID = 'film-1';

/** Which film of the rack is cut where there is one colour. @param named the film that it is to be. */
export const oneFilmOf = (rack: readonly Film[], named = ONE_FILM_ID): Film => rack.find(({ id }) => id === named) ?? rack.find(({ id }) => id !== AROUND_FILM.id) ?? rack[0];
