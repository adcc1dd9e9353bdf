import { MAX_GROUPS_DEEP } from './objects.ts';

type Fields = Readonly<Record<string, unknown>>;

/*
 * Where a job has outlines, whatever its version and state: a job that is stored, or on its way, is looked at before it is checked.
 */

/** From so many characters on an outline is better kept and sent apart from its job: a few hundred nodes. */
export const LONG_OUTLINE_CHARS = 16_384;

/** Visits the outlines of a job value. */
export const eachOutline = (value: unknown, visit: (outline: Fields) => void): void => void withOutlines(value, (outline) => (visit(outline), outline));

/** The value with its outlines changed: those held by hand of traced parts, and those of drawings. What is shaped otherwise stays as it is. */
export function withOutlines(value: unknown, change: (outline: Fields) => Fields): unknown {
  const changedIn = (list: unknown): unknown => (Array.isArray(list) ? list.map((each: unknown) => (isFields(each) ? change(each) : each)) : list);
  const changed = (objects: unknown, depth: number): unknown => {
    if (!Array.isArray(objects) || depth > MAX_GROUPS_DEEP) return objects;
    return objects.map((object: unknown) => {
      if (!isFields(object)) return object;
      const { objects: inner, outline, paths } = object;
      return {
        ...object,
        ...(inner === undefined ? {} : { objects: changed(inner, depth + 1) }),
        ...(isFields(outline) && 'held' in outline ? { outline: { ...outline, held: changedIn(outline['held']) } } : {}),
        ...(paths === undefined ? {} : { paths: changedIn(paths) }),
      };
    });
  };
  return isFields(value) && 'objects' in value ? { ...value, objects: changed(value['objects'], 0) } : value;
}

const isFields = (value: unknown): value is Fields => typeof value === 'object' && value !== null && !Array.isArray(value);
