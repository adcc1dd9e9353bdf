import { isFields, type Fields } from './fields.ts';
import { JOB_VERSION } from './job.ts';
import { FIRST_OBJECT_ID } from './tracedPart.ts';

/** What a picture is known by where its file was not at hand when an older job was read. */
export const UNKNOWN_PICTURE_ID = 'picture';

/** Version 2 added ways of separating; one tone is written as before. */
const fromVersion1 = (old: Fields): Fields => ({ ...old, version: 2 });

/** Version 3 added outlines held by hand, borders, pairs of films and a way; all may be left out. */
const fromVersion2 = (old: Fields): Fields => ({ ...old, version: 3 });

/** Version 4 has pictures, a rack and objects: what there was of one picture is its one object. Parts that are missing stay so, to be told. */
function fromVersion3({ picture, recipe, separation, otherWays, outline, assembly, ...old }: Fields, pictureId = UNKNOWN_PICTURE_ID): Fields {
  const { films, place, by, sizeMm, turnDeg } = isFields(assembly) ? assembly : {};
  const size = Object.fromEntries(Object.entries({ by, sizeMm, turnDeg }).filter(([, value]) => value !== undefined));
  const object = {
    kind: 'traced',
    id: FIRST_OBJECT_ID,
    ...(isFields(picture) ? { picture: pictureId } : {}),
    recipe,
    separation,
    ...(otherWays === undefined ? {} : { otherWays }),
    outline,
    size,
  };
  return {
    ...old,
    version: 4,
    pictures: isFields(picture) ? [{ ...picture, id: pictureId }] : [],
    ...(films === undefined ? {} : { films }),
    objects: [object],
    ...(place === undefined ? {} : { place }),
  };
}

/** Each turns a job value of the version that it is named by into the next one's. Nothing is checked: what does not fit is told by the schema. */
const MIGRATIONS: Readonly<Record<number, (old: Fields, pictureId?: string) => Fields>> = { 1: fromVersion1, 2: fromVersion2, 3: fromVersion3 };

/**
 * A job value of an older version as one of the present.
 * @param version of the value, 1 to the present one. @param pictureId what its picture is known by.
 */
export function migrated(value: unknown, version: number, pictureId?: string): unknown {
  let fields: unknown = value;
  for (let at = version; at < JOB_VERSION; at++) fields = isFields(fields) ? MIGRATIONS[at](fields, pictureId) : fields;
  return fields;
}
