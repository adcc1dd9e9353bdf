import { ensureCommand } from './build.mjs';
import { runCompiled } from './runCompiled.mjs';
import { ensurePackages } from './setup.mjs';

ensurePackages();
const command = await ensureCommand();
// npm sets INIT_CWD to where the person stands; paths on the command line are meant from there.
if (process.env.INIT_CWD !== undefined) process.chdir(process.env.INIT_CWD);
runCompiled(command);
