import { basename, extname } from 'node:path';

/** Names that the files of another picture begin with, so that theirs could be the same: NAME-1-RED. */
const isSheetOf = (name: string, other: string): boolean => name.startsWith(`${other}-`) && /^\d+-[a-z]/.test(name.slice(other.length + 1));

/** File names without ending for the results of inputs, numbered where two would be the same, whatever the case of their letters. */
export function uniqueNames(inputs: readonly string[]): string[] {
  const plain = inputs.map((input) => basename(input, extname(input)));
  const taken = new Set<string>();
  const isFree = (name: string): boolean => !taken.has(name) && [...taken].every((other) => !isSheetOf(name, other) && !isSheetOf(other, name));
  return plain.map((name, k) => {
    let candidate = name;
    // A later input keeps its own name: an earlier one is not numbered into it.
    for (let n = 2; !isFree(candidate.toLowerCase()) || (candidate !== name && plain.slice(k + 1).some((later) => later.toLowerCase() === candidate.toLowerCase())); n++) candidate = [...taken].some((other) => isSheetOf(name.toLowerCase(), other)) ? `${n}-${name}` : `${name}-${n}`;
    taken.add(candidate.toLowerCase());
    return candidate;
  });
}
