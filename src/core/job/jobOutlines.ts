import { isFields, type Fields } from './fields.ts';
import { MAX_GROUPS_DEEP } from './objects.ts';

/*
 * Where a job has outlines, whatever its version and state: a job that is stored, or on its way, is looked at before it is checked.
 */

/** From so many characters on an outline is better kept and sent apart from its job: a few hundred nodes. */
export const LONG_OUTLINE_CHARS = 16_384;

/** Visits the outlines of a job value, in the order of its objects. */
export const eachOutline = (value: unknown, visit: (outline: Fields) => void): void => void withOutlines(value, (outline) => (visit(outline), outline));

/**
 * The value with its outlines changed: those held by hand of traced parts, and those of drawings. What is shaped otherwise stays as it is, and what does not
 * change is the same object.
 */
export function withOutlines<Value>(value: Value, change: (outline: Fields) => Fields): Value {
  const changed = (objects: unknown, depth: number): unknown =>
    depth > MAX_GROUPS_DEEP ? objects : mapped(objects, (object) => {
      const { objects: inner, outline, paths } = object;
      const own: Record<string, unknown> = {};
      if (inner !== undefined) own['objects'] = changed(inner, depth + 1);
      if (isFields(outline) && 'held' in outline) own['outline'] = withFields(outline, { held: mapped(outline['held'], change) });
      if (paths !== undefined) own['paths'] = mapped(paths, change);
      return withFields(object, own);
    });
  return isFields(value) && 'objects' in value ? (withFields(value, { objects: changed(value['objects'], 0) }) as Value) : value;
}

/** A list with its objects changed; the list itself where none of them is. */
function mapped(list: unknown, change: (each: Fields) => Fields): unknown {
  if (!Array.isArray(list)) return list;
  const next = list.map((each: unknown) => (isFields(each) ? change(each) : each));
  return next.some((each, k) => each !== list[k]) ? next : list;
}

const withFields = (object: Fields, fields: Fields): Fields => (Object.keys(fields).some((name) => fields[name] !== object[name]) ? { ...object, ...fields } : object);
