import { readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { constants, Script } from 'node:vm';

/** Commands that use most of the code: what they compiled is worth keeping. */
const TELLING = ['trace', 'auto', 'run'];

/**
 * Runs a bundled program with what V8 compiled of it before, which lies beside it: a fresh process need not parse and compile again. What is older than the bundle, or from another
 * version of Node, is left aside and made anew when a command ends that uses most of the code.
 */
export function runCompiled(path) {
  const kept = `${path}.v8`;
  const source = `(function (exports, require, module, __filename, __dirname) {${readFileSync(path, 'utf8')}\n})`;
  const script = new Script(source, { filename: path, cachedData: keptCode(kept, path), importModuleDynamically: constants.USE_MAIN_CONTEXT_DEFAULT_LOADER });
  const module = { exports: {} };
  script.runInThisContext()(module.exports, createRequire(path), module, path, dirname(path));
  if (script.cachedDataRejected === false || !TELLING.includes(process.argv[2])) return;
  process.once('exit', (code) => {
    if (code === 0) keep(script.createCachedData(), kept);
  });
}

function keptCode(kept, path) {
  try {
    return statSync(kept).mtimeMs > statSync(path).mtimeMs ? readFileSync(kept) : undefined;
  } catch {
    // There is none yet.
    return undefined;
  }
}

/** Whole or not at all: several commands may end at once. */
function keep(code, kept) {
  try {
    writeFileSync(`${kept}-${process.pid}`, code);
    renameSync(`${kept}-${process.pid}`, kept);
  } catch {
    // The next command compiles again.
  }
}
